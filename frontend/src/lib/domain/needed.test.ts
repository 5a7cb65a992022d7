import { describe, expect, it } from 'vitest';
import { needed } from './needed';

const run = (...pieces: [item: string, words: string, in_kit: boolean][]) => ({
	pieces: pieces.map(([item, words, in_kit]) => ({ item, words, in_kit }))
});

describe('what a typed line needs', () => {
	it('tells what is owned from what is to be got, and counts the latter', () => {
		const runs = [
			run(['m1', 'M1 Microphone lead, 10 m', true], ['get-1', 'Microphone lead, 5 m', false]),
			run(['get-2', 'Microphone lead, 5 m', false])
		];
		expect(needed(runs)).toEqual({
			fromKit: ['M1 Microphone lead, 10 m'],
			toGet: ['2 × Microphone lead, 5 m']
		});
	});

	it('counts a box that several runs go through once', () => {
		const box = ['get-box', 'Multicore, 20 m', false] as [string, string, boolean];
		expect(needed([run(box), run(box)]).toGet).toEqual(['Multicore, 20 m']);
	});

	it('is empty where a plug goes straight in', () => {
		expect(needed([run()])).toEqual({ fromKit: [], toGet: [] });
	});
});
