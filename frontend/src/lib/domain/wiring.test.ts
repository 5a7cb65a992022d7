import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { newKitItem } from './records';
import { areJoined, joinsOf, toggled, wiringEdit } from './wiring';
import { boardOf } from './wiring-board';

type Part = Schemas['Part'];

const connectors = [
	{ id: 'in', label: 'In', form: 'xlr3-female' as const, side: 'in' as const, ring: 'open' as const },
	{ id: 'out', label: 'Out', form: 'xlr3-male' as const, side: 'out' as const, ring: 'open' as const }
];
const CONTACTS = { 'xlr3-female': ['2', '3', '1', 'shell'], 'xlr3-male': ['2', '3', '1', 'shell'] };
const value = (number: number) => ({ value: number, source: 'stated' });
const lead = (): Part =>
	({
		id: 'mic-lead',
		revision: 1,
		name: 'Microphone lead',
		kind: 'lead',
		connectors,
		wires: [],
		cables: [
			{
				conductors: [
					{ a: 'in.2', b: 'out.2', kind: 'core' },
					{ a: 'in.3', b: 'out.3', kind: 'core' },
					{ a: 'in.1', b: 'out.1', kind: 'screen' }
				],
				core_ohm_per_m: value(0.08),
				screen_ohm_per_m: value(0.03),
				core_to_core_f_per_m: value(6e-11),
				core_to_screen_f_per_m: value(1e-10),
				pair_h_per_m: value(6e-7),
				external_h_per_m: value(1e-6)
			}
		]
	}) as unknown as Part;
const adapter = (): Part => ({ ...lead(), kind: 'adapter', cables: [], wires: [{ a: 'in.2', b: 'out.2' }] });
const item = newKitItem({ id: 'lead-3', tag: 'M3', part: 'mic-lead', length_m: 10 });

describe('wiring', () => {
	it('cuts a core and keeps its near end', () => {
		const cut = toggled(lead(), 'out.3', 'in.3');
		expect(areJoined(cut, 'in.3', 'out.3')).toBe(false);
		expect(cut.cables?.[0]?.conductors[1]).toEqual({ a: 'in.3', b: null, kind: 'core' });
	});

	it('uses a cut core again, also towards another contact', () => {
		const swapped = [
			['in.2', 'out.2'],
			['in.3', 'out.3'],
			['in.2', 'out.3'],
			['in.3', 'out.2']
		].reduce((part, [a, b]) => toggled(part, a ?? '', b ?? ''), lead());
		expect(swapped.cables?.[0]?.conductors).toHaveLength(3);
		expect(areJoined(swapped, 'in.2', 'out.3')).toBe(true);
		expect(areJoined(swapped, 'in.3', 'out.2')).toBe(true);
		expect(areJoined(swapped, 'in.1', 'out.1')).toBe(true);
	});

	it('adds a core where none is free, and a link between contacts of one plug', () => {
		expect(toggled(lead(), 'in.1', 'out.3').cables?.[0]?.conductors).toHaveLength(4);
		expect(toggled(lead(), 'out.3', 'out.1').wires).toEqual([{ a: 'out.3', b: 'out.1' }]);
	});

	it('undoes itself', () => {
		for (const part of [lead(), adapter()])
			for (const [a, b] of [
				['in.2', 'out.2'],
				['in.2', 'in.3'],
				['in.3', 'out.1']
			] as const)
				expect(new Set(joinsOf(toggled(toggled(part, a, b), a, b)).map(String))).toEqual(
					new Set(joinsOf(part).map(String))
				);
	});

	it('gives the piece a part of its own and counts its revisions', () => {
		const edit = wiringEdit(item, lead(), toggled(lead(), 'in.3', 'out.3'));
		expect(edit.ops.map((op) => op.op)).toEqual(['put', 'set']);
		const own = (edit.ops[0] as { thing: Part }).thing;
		expect([own.id, own.revision]).toEqual(['own-lead-3', 1]);
		const again = wiringEdit({ ...item, part: own.id }, own, toggled(own, 'in.2', 'out.2'));
		expect((again.ops[0] as { thing: Part }).thing.revision).toBe(2);
	});

	it('never joins a contact to itself', () => {
		expect(toggled(adapter(), 'in.2', 'in.2')).toEqual(adapter());
	});

	it('is laid out with every contact in a place of its own', () => {
		const board = boardOf({ ...adapter(), wires: [{ a: 'in.2', b: 'case' }] }, CONTACTS);
		expect(board.points.map((point) => point.id)).toContain('case');
		const places = [...board.spots.values()].map((spot) => `${spot.x},${spot.y}`);
		expect(new Set(places).size).toBe(places.length);
		expect(board.lines).toHaveLength(1);
	});
});
