/** Where mains plugs are: strips of the venue, and the edit that says which one a device is at. */
import type { Schemas } from '../api/client';
import { put, set } from './ops';
import { valueOf } from './settings';

type Rig = Schemas['Rig'];
type Gear = Schemas['Gear'];

export const NOBODY_SAID = '';
export const ANOTHER = '+';
/** A fault somebody found: a broken pin, an adapter without earth. */
export const EARTH_OPEN = '!';

const PLUG = '-plug';

/** Whether an outlet is a device's own plug, which belongs to the rig and not to the building. */
export const isPlug = (point: Schemas['EarthPoint']): boolean =>
	point.kind === 'outlet' && point.id.endsWith(PLUG);

/** Whether a device's plug has an earth, with its switches as they stand: only then it matters where it is. */
export function isEarthed(part: Schemas['Part'] | undefined, gear: Gear): boolean {
	if (!part) return false;
	const setting = (part.settings ?? []).find((one) => one.id === part.earthing_setting);
	const earthing = setting ? part.earthings?.[String(valueOf(gear, setting))] : part.earthing;
	return earthing?.type === 'class-1';
}

export interface Strip {
	id: string;
	name: string;
}

/** What a plug can be put into: strips, and circuits or boards that have sockets of their own. */
export const stripsOf = (rig: Rig): Strip[] =>
	(rig.venue.earth ?? []).filter((point) => point.kind !== 'outlet').map(({ id, name }) => ({ id, name }));

/** The strip a device is at, or NOBODY_SAID. */
export function stripOf(rig: Rig, gear: Gear): string {
	if (gear.earth_open) return EARTH_OPEN;
	const point = (rig.venue.earth ?? []).find((one) => one.id === gear.outlet);
	return (point?.kind === 'outlet' ? point.parent : point?.id) ?? point?.id ?? NOBODY_SAID;
}

/** A device's plug in a strip, in another one, or nowhere said. */
export function plugEdit(rig: Rig, gear: Gear, choice: string): Schemas['Edit'] {
	if (choice === NOBODY_SAID) {
		return {
			label: `${gear.name}: outlet not known`,
			ops: [set('gear', gear.id, 'outlet', null), set('gear', gear.id, 'earth_open', false)]
		};
	}
	if (choice === EARTH_OPEN) {
		return {
			label: `${gear.name}: mains earth found open`,
			ops: [set('gear', gear.id, 'earth_open', true)]
		};
	}
	const strips = stripsOf(rig);
	const number = [...Array(strips.length + 1).keys()]
		.map((index) => index + 1)
		.find((one) => !strips.some((strip) => strip.id === `strip-${one}`));
	const strip =
		choice === ANOTHER
			? { id: `strip-${number}`, name: `Strip ${number}` }
			: strips.find((one) => one.id === choice);
	if (!strip) throw new Error(`There is no strip ${choice}.`);
	const outlet = `${gear.id.slice(0, 58)}${PLUG}`;
	return {
		label: `${gear.name}: plug in ${strip.name}`,
		ops: [
			...(choice === ANOTHER ? [put('earth', point(strip.id, strip.name, 'strip', null))] : []),
			put('earth', point(outlet, `${gear.name}’s plug`, 'outlet', strip.id)),
			set('gear', gear.id, 'outlet', outlet),
			set('gear', gear.id, 'earth_open', false)
		]
	};
}

const point = (
	id: string,
	name: string,
	kind: Schemas['EarthPoint']['kind'],
	parent: string | null
): Schemas['EarthPoint'] => ({
	id,
	name,
	kind,
	parent,
	ohm: null,
	henry: null,
	emf_v: null,
	voltage: null,
	at: null,
	residual_a: null,
	breaker_a: null
});
