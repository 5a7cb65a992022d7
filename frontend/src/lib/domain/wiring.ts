/** A piece's wiring as joins between contacts, and the same part with one join made or cut. Pure. */
import { put, set } from './ops';
import type { Schemas } from '../api/client';

type Part = Schemas['Part'];
type Conductor = Schemas['Conductor'];

export interface Joined {
	a: string;
	b: string;
	kind: 'wire' | 'core' | 'screen';
}

/** Everything without resistance of its own between two points. */
export function joinsOf(part: Part): Joined[] {
	const wires = (part.wires ?? []).map((wire) => ({ ...wire, kind: 'wire' as const }));
	const cores = (part.cables ?? [])
		.flatMap((cable) => cable.conductors)
		.flatMap((one) => (one.a && one.b ? [{ a: one.a, b: one.b, kind: one.kind }] : []));
	return [...wires, ...cores];
}

const meets = (one: { a?: string | null; b?: string | null }, a: string, b: string): boolean =>
	(one.a === a && one.b === b) || (one.a === b && one.b === a);

export const areJoined = (part: Part, a: string, b: string): boolean =>
	joinsOf(part).some((one) => meets(one, a, b));

/** Cuts what joins the two directly, or joins them: through a core that was cut, a new core, or a link in a plug. */
export function toggled(part: Part, a: string, b: string): Part {
	if (a === b) return part;
	if (areJoined(part, a, b)) return cut(part, a, b);
	const cables = part.cables ?? [];
	const across = sideOf(part, a) !== sideOf(part, b);
	if (cables.length === 0 || !across) return { ...part, wires: [...(part.wires ?? []), { a, b }] };
	const [near, far] = sideOf(part, a) === 'in' ? [a, b] : [b, a];
	let placed = false;
	const mended = cables.map((cable) => ({
		...cable,
		conductors: cable.conductors.map((one) => {
			const loose = !one.a || !one.b;
			const free = (!one.a || one.a === near) && (!one.b || one.b === far);
			if (placed || !loose || !free || (!one.a && !one.b)) return one;
			placed = true;
			return { ...one, a: near, b: far };
		})
	}));
	if (placed) return { ...part, cables: mended };
	const core: Conductor = { a: near, b: far, kind: 'core' };
	return {
		...part,
		cables: cables.map((cable, index) =>
			index === 0 ? { ...cable, conductors: [...cable.conductors, core] } : cable
		)
	};
}

/** A cut core keeps its end on the source's side, as a broken lead does. */
function cut(part: Part, a: string, b: string): Part {
	return {
		...part,
		wires: (part.wires ?? []).filter((wire) => !meets(wire, a, b)),
		cables: (part.cables ?? []).map((cable) => ({
			...cable,
			conductors: cable.conductors.map((one) => (meets(one, a, b) ? { ...one, b: null } : one))
		}))
	};
}

export const connectorOf = (point: string): string => point.slice(0, point.indexOf('.'));

export function sideOf(part: Part, point: string): 'in' | 'out' {
	const connector = part.connectors.find((one) => one.id === connectorOf(point));
	return connector?.side === 'out' ? 'out' : 'in';
}

/** The edit that gives one piece this wiring of its own; the part it came from stays as it is. */
export function wiringEdit(item: Schemas['KitItem'], from: Part, wired: Part): Schemas['Edit'] {
	const own = from.id === `own-${item.id}`.slice(0, 64);
	const part: Part = {
		...wired,
		id: `own-${item.id}`.slice(0, 64),
		revision: own ? (from.revision ?? 1) + 1 : 1,
		name: own ? from.name : `${from.name}, own wiring`.slice(0, 120)
	};
	return {
		label: `${item.tag}: wiring changed`,
		ops: [put('parts', part), set('kit', item.id, 'part', part.id)]
	};
}
