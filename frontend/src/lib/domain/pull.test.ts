import { describe, expect, it } from 'vitest';
import { byRig, byStore, countWords, proofWords, scaleM, shortageWords, type PullLine } from './pull';

const line = (rig: string, need_m: number, ...lengths: number[]): PullLine => ({
	rig,
	rig_name: rig,
	run: 'r',
	name: 'Run',
	number: 1,
	part: 'Microphone lead',
	need_m,
	leads: lengths.map((length_m, at) => ({
		tag: `M${at}`,
		part: 'Microphone lead',
		length_m,
		store: 'van',
		suspect: false
	})),
	get_m: lengths.length > 0 ? null : need_m,
	changed: true
});

describe('the pull list', () => {
	it('is drawn to the scale of its longest way', () => {
		expect(scaleM([line('a', 8, 10), line('a', 12, 10, 5), line('a', 3)])).toBe(15);
		expect(scaleM([])).toBe(1);
	});

	it('begins with the rig that was asked about', () => {
		const rigs = byRig([line('a', 1, 1), line('b', 1, 1), line('a', 2, 2)], 'b');
		expect(rigs.map(({ rig, lines }) => [rig, lines.length])).toEqual([
			['b', 1],
			['a', 2]
		]);
	});

	it('is packed by store, the rest last', () => {
		const pack = (store: string) => ({ store, kind: 'lead' as const, words: 'x', count: 1, tags: [] });
		expect(
			byStore([pack(''), pack('van'), pack('van')]).map(({ store, lines }) => [store, lines.length])
		).toEqual([
			['van', 2],
			['Besides', 1]
		]);
	});

	it('says what is missing and how good it is', () => {
		const list = { lines: [], shortages: [], packing: [], joins: 0, left_over_m: 0, proven: true, gap: 0 };
		expect(proofWords(list)).toMatch(/proven/);
		expect(proofWords({ ...list, proven: false, gap: 0.0123 })).toContain('1.2 %');
		expect(countWords([line('a', 8, 10), line('a', 8)])).toBe(
			'1 of 2 leads that the runs need is in the house'
		);
		expect(shortageWords({ part: 'DI', length_m: null, count: 2, runs: [] }, (metres) => `${metres} m`)).toBe(
			'2 × DI'
		);
	});
});
