import { describe, expect, it } from 'vitest';
import { inRows } from './label-rows';

describe('labels over pieces', () => {
	it('stay in one row where there is room', () => {
		const labels = [
			{ x: 100, y: 50, words: 'lead 1' },
			{ x: 300, y: 50, words: 'lead 2' }
		];
		expect(inRows(labels)).toEqual(labels);
	});

	it('stand a row higher where they would run into each other', () => {
		const labels = [
			{ x: 100, y: 50, words: 'instrument lead 1, 3 m' },
			{ x: 190, y: 50, words: 'DI with link 1' },
			{ x: 270, y: 50, words: 'instrument lead 2, 3 m' }
		];
		expect(inRows(labels).map((label) => label.y)).toEqual([50, 36, 50]);
	});

	it('mind only labels of the same row of pieces', () => {
		const labels = [
			{ x: 100, y: 50, words: 'instrument lead' },
			{ x: 100, y: 150, words: 'instrument lead' }
		];
		expect(inRows(labels)).toEqual(labels);
	});
});
