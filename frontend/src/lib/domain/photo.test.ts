import { describe, expect, it } from 'vitest';
import { fitted } from './photo';

describe('a photo', () => {
	it('is made smaller in proportion, and never larger', () => {
		expect(fitted(4000, 3000)).toEqual([1600, 1200]);
		expect(fitted(3000, 4000)).toEqual([1200, 1600]);
		expect(fitted(800, 600)).toEqual([800, 600]);
		expect(fitted(10000, 1)).toEqual([1600, 1]);
	});
});
