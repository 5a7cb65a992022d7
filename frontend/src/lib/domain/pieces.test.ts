import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { inserted, itemOf, piecesOf, moved, swapped, without } from './pieces';
import { newKitItem } from './records';

const item = (id: string) => newKitItem({ id, tag: id, part: 'p' });
const pieces = ['a', 'b', 'c'].map(item);
const ids = (list: readonly { id: string }[]) => list.map((one) => one.id).join('');

describe('pieces', () => {
	it('are swapped, inserted, taken out and moved', () => {
		expect(ids(swapped(pieces, 1, item('x')))).toBe('axc');
		expect(ids(inserted(pieces, 0, item('x')))).toBe('xabc');
		expect(ids(inserted(pieces, 3, item('x')))).toBe('abcx');
		expect(ids(without(pieces, 1))).toBe('ac');
		expect(ids(moved(pieces, 1, -1))).toBe('bac');
		expect(ids(moved(pieces, 1, 1))).toBe('acb');
		expect(ids(moved(pieces, 9, 1))).toBe('abc');
	});

	it('come from the rig in the run’s order', () => {
		const rig = {
			kit: pieces,
			runs: [{ id: 'r', pieces: ['c', 'a', 'ghost'] }]
		} as unknown as Schemas['Rig'];
		expect(ids(piecesOf(rig, 'r'))).toBe('ca');
		expect(piecesOf(rig, 'none')).toEqual([]);
	});

	it('become kit when they still have to be got', () => {
		const choice = { item: 'get-pad-20-2', tag: 'pad 2', part: 'pad-20', in_kit: false, length_m: null };
		expect(itemOf(choice as unknown as Schemas['PieceChoice'])).toMatchObject({ tag: 'pad 2', owned: false });
	});
});
