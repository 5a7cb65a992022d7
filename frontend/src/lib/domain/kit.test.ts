import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { ownedEdit, removeEdit, shelvesOf, stockOf } from './kit';
import { figuresOf, freeId, withFigure } from './own-part';

const item = (id: string, part: string, more: object = {}) => ({
	id,
	tag: id.toUpperCase(),
	part,
	length_m: 5,
	owned: true,
	installed: false,
	...more
});
const rig = {
	parts: [
		{ id: 'lead', name: 'Microphone lead', kind: 'lead' },
		{ id: 'box', name: 'Box', kind: 'box' }
	],
	kit: [
		item('b1', 'box', { length_m: null }),
		item('m1', 'lead'),
		item('m2', 'lead', { owned: false }),
		item('m3', 'lead', { length_m: 10 }),
		item('t1', 'lead', { installed: true })
	],
	runs: [{ id: 'r', name: 'Lectern', pieces: ['m1'] }]
} as unknown as Schemas['Rig'];

describe('the cupboard', () => {
	it('keeps leads first, the same lengths together, and knows what is free', () => {
		const shelves = shelvesOf(rig);
		expect(shelves.map((one) => [one.name, one.lengthM, one.pieces.length, one.owned, one.free])).toEqual([
			['Microphone lead', 5, 2, 1, 0],
			['Microphone lead', 5, 1, 1, 0],
			['Microphone lead', 10, 1, 1, 1],
			['Box', null, 1, 1, 1]
		]);
		expect(shelves[0]?.pieces[0]?.runs).toEqual([{ id: 'r', name: 'Lectern' }]);
		expect(shelves.map((one) => one.toGet)).toEqual([1, 0, 0, 0]);
	});

	it('counts what is there, what is free, and which runs wait', () => {
		const waiting = {
			...rig,
			runs: [{ id: 'r', name: 'Lectern', pieces: ['m1', 'm2', 't1'] }]
		} as typeof rig;
		expect(stockOf(shelvesOf(waiting))).toEqual({
			owned: 3,
			free: 2,
			toGet: 1,
			waiting: [{ id: 'r', name: 'Lectern' }]
		});
	});

	it('changes one piece at a time', () => {
		const first = rig.kit?.[1];
		if (!first) throw new Error('no kit');
		expect(removeEdit(first).ops).toEqual([{ op: 'remove', kind: 'kit', id: 'm1' }]);
		expect(ownedEdit(first, false).ops).toEqual([
			{ op: 'set', kind: 'kit', id: 'm1', field: 'owned', key: null, value: false }
		]);
	});
});

describe('a part of one’s own', () => {
	const part = {
		id: 'lead',
		name: 'Lead',
		cables: [
			{
				conductors: [{ a: 'in.2', kind: 'core' }],
				core_ohm_per_m: { value: 0.08, low: 0.05, high: 0.1, source: 'from memory' },
				screen_coupling_h_per_m: { likely: 1e-10, worst: 5e-10, source: 'from memory' }
			}
		]
	} as unknown as Schemas['Part'];

	it('shows every figure with where it stands and its unit', () => {
		expect(figuresOf(part).map((one) => [one.where, one.field, one.unit, one.first, one.second])).toEqual([
			['cable 1', 'core resistance', 'Ω/m', 0.08, null],
			['cable 1', 'screen coupling inductance', 'µH/m', 0.0001, 0.0005]
		]);
	});

	it('takes a figure that somebody entered, and leaves the old part alone', () => {
		const [core, coupling] = figuresOf(part);
		if (!core || !coupling) throw new Error('no figures');
		const changed = withFigure(withFigure(part, core, 0.2, null), coupling, 0, 0);
		expect(figuresOf(changed).map((one) => [one.first, one.second, one.source])).toEqual([
			[0.2, null, 'entered here'],
			[0, 0, 'entered here']
		]);
		expect(figuresOf(part)[0]?.first).toBe(0.08);
		const measured = withFigure(part, coupling, 0.0002, 0.0004) as unknown as {
			cables: { screen_coupling_h_per_m: object }[];
		};
		expect(measured.cables[0]?.screen_coupling_h_per_m).toEqual({
			likely: 0.0002 / 1e6,
			worst: 0.0004 / 1e6,
			source: 'entered here'
		});
	});

	it('calls impedances by their name', () => {
		const input = { z_differential_ohm: { value: 1e4, source: 's' }, noise_dbu: { value: -90, source: 's' } };
		const words = figuresOf({ inputs: [{ modes: [input] }] } as unknown as Schemas['Part']);
		expect(words.map((one) => [one.where, one.field, one.unit])).toEqual([
			['input 1, mode 1', 'differential impedance', 'Ω'],
			['input 1, mode 1', 'noise level', 'dBu']
		]);
	});

	it('gets an id nobody has', () => {
		expect(freeId('Thin lead (blue)', new Set())).toBe('own-thin-lead-blue');
		expect(freeId('Thin lead', new Set(['own-thin-lead']))).toBe('own-thin-lead-2');
		expect(freeId('…', new Set())).toBe('own-part');
	});
});
