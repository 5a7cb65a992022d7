import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { treeOf } from './earth-tree';

const point = (
	id: string,
	kind: Schemas['EarthPoint']['kind'],
	parent: string | null,
	more: Partial<Schemas['EarthPoint']> = {}
): Schemas['EarthPoint'] =>
	({ id, name: id, kind, parent, ohm: null, voltage: null, ...more }) as Schemas['EarthPoint'];

const rig = {
	gear: [
		{ id: 'desk', name: 'Desk', outlet: 'desk-plug' },
		{ id: 'speaker', name: 'Speaker', outlet: 'stage' }
	],
	venue: {
		earth: [
			point('board', 'board', null),
			point('stage', 'circuit', 'board', {
				breaker_a: { value: 16 } as Schemas['EarthPoint']['breaker_a'],
				residual_a: { value: 0.03 } as Schemas['EarthPoint']['residual_a']
			}),
			point('left', 'strip', 'stage', {
				voltage: { against: 'board', reading_v: 0.4, lines: [], spectrum: 'switched-mode' }
			}),
			point('desk-plug', 'outlet', 'left'),
			point('other', 'board', null)
		]
	}
} as unknown as Schemas['Rig'];

describe('the tree of earths', () => {
	it('stands from the boards down, without the devices’ own plugs', () => {
		expect(treeOf(rig).map(({ point: { id }, depth }) => [id, depth])).toEqual([
			['board', 0],
			['stage', 1],
			['left', 2],
			['other', 0]
		]);
	});

	it('says what is plugged in where and what is known', () => {
		const [, stage, left] = treeOf(rig);
		expect(stage?.devices).toEqual(['Speaker']);
		expect(left?.devices).toEqual(['Desk']);
		expect(stage?.facts).toEqual(['16 A', '30 mA residual-current device']);
		expect(left?.facts).toEqual(['measured 0.4 V against board']);
	});
});
