import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { inserted, itemOf, legsOf, moved, swapped, without } from './legs';

const item = (id: string) => ({
	id,
	tag: id,
	part: 'p',
	length_m: null,
	owned: true,
	installed: false,
	beside: null,
	loop_width_m: null
});
const legs = ['a', 'b', 'c'].map(item);
const ids = (list: readonly { id: string }[]) => list.map((one) => one.id).join('');

describe('legs', () => {
	it('are swapped, inserted, taken out and moved', () => {
		expect(ids(swapped(legs, 1, item('x')))).toBe('axc');
		expect(ids(inserted(legs, 0, item('x')))).toBe('xabc');
		expect(ids(inserted(legs, 3, item('x')))).toBe('abcx');
		expect(ids(without(legs, 1))).toBe('ac');
		expect(ids(moved(legs, 1, -1))).toBe('bac');
		expect(ids(moved(legs, 1, 1))).toBe('acb');
		expect(ids(moved(legs, 9, 1))).toBe('abc');
	});

	it('come from the rig in the run’s order', () => {
		const rig = { kit: legs, runs: [{ id: 'r', legs: ['c', 'a', 'ghost'] }] } as unknown as Schemas['Rig'];
		expect(ids(legsOf(rig, 'r'))).toBe('ca');
		expect(legsOf(rig, 'none')).toEqual([]);
	});

	it('become kit when they still have to be got', () => {
		const choice = { item: 'get-pad-20-2', tag: 'pad 2', part: 'pad-20', in_kit: false, length_m: null };
		expect(itemOf(choice as unknown as Schemas['LegChoice'])).toMatchObject({ tag: 'pad 2', owned: false });
	});
});
