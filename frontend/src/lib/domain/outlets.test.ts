import { set } from './ops';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { newGear } from './records';
import { ANOTHER, EARTH_OPEN, isEarthed, NOBODY_SAID, plugEdit, stripOf, stripsOf } from './outlets';

const gear = (outlet: string | null): Schemas['Gear'] =>
	newGear({ id: 'desk', name: 'Desk', part: 'p', outlet });
const point = (id: string, kind: string, parent: string | null) => ({
	id,
	name: id.toUpperCase(),
	kind,
	parent
});
const rig = (...earth: object[]) => ({ venue: { earth } }) as unknown as Schemas['Rig'];

describe('mains plugs', () => {
	it('matter only where they have an earth', () => {
		const supply = { type: 'choice', id: 'supply', options: ['plug', 'battery'], default: 'plug' };
		const part = {
			settings: [supply],
			earthing_setting: 'supply',
			earthings: { plug: { type: 'class-1' }, battery: { type: 'floating' } }
		} as unknown as Schemas['Part'];
		expect(isEarthed(part, gear(null))).toBe(true);
		expect(isEarthed(part, { ...gear(null), settings: { supply: 'battery' } })).toBe(false);
		expect(isEarthed({ earthing: { type: 'class-2' } } as Schemas['Part'], gear(null))).toBe(false);
		expect(isEarthed(undefined, gear(null))).toBe(false);
	});

	it('are in a strip, in something else, or nobody said', () => {
		const place = rig(point('s', 'strip', null), point('o', 'outlet', 's'), point('x', 'outlet', null));
		expect(stripOf(place, gear('o'))).toBe('s');
		expect(stripOf(place, gear('s'))).toBe('s');
		expect(stripOf(place, gear('x'))).toBe('x');
		expect(stripOf(place, gear(null))).toBe(NOBODY_SAID);
		expect(stripsOf(place)).toEqual([{ id: 's', name: 'S' }]);
	});

	it('go into a strip there is, into a new one, or out again', () => {
		const place = rig(point('strip-1', 'strip', null));
		const known = plugEdit(place, gear(null), 'strip-1');
		expect(known.ops.map((op) => op.op)).toEqual(['put', 'set', 'set']);
		expect(known.ops[0]).toMatchObject({ thing: { id: 'desk-plug', kind: 'outlet', parent: 'strip-1' } });
		const another = plugEdit(place, gear(null), ANOTHER);
		expect(another.ops[0]).toMatchObject({ thing: { id: 'strip-2', name: 'Strip 2', kind: 'strip' } });
		expect(another.ops[2]).toEqual(set('gear', 'desk', 'outlet', 'desk-plug'));
		expect(plugEdit(place, gear('desk-plug'), NOBODY_SAID).ops[0]).toEqual(
			set('gear', 'desk', 'outlet', null)
		);
		const broken = plugEdit(place, gear('desk-plug'), EARTH_OPEN);
		expect(broken.ops).toEqual([set('gear', 'desk', 'earth_open', true)]);
		expect(stripOf(place, { ...gear('desk-plug'), earth_open: true })).toBe(EARTH_OPEN);
		expect(plugEdit(place, { ...gear(null), earth_open: true }, 'strip-1').ops[2]).toEqual(
			set('gear', 'desk', 'earth_open', false)
		);
		expect(() => plugEdit(place, gear(null), 'gone')).toThrow('no strip');
	});
});
