import { describe, expect, it } from 'vitest';
import { saidMhz, typedMhz } from './radio';

describe('frequencies', () => {
	it('are read with points and commas, one or several', () => {
		expect(typedMhz('606.5')).toEqual([606.5]);
		expect(typedMhz('606.5 MHz, 607,125')).toEqual([606.5, 607.125]);
		expect(typedMhz('606.5;607')).toEqual([606.5, 607]);
		expect(typedMhz('')).toEqual([]);
		expect(saidMhz([606.5, 607])).toBe('606.5 607');
	});

	it('are none where they are no frequencies', () => {
		for (const wrong of ['six', '606.5.1', '5', '9000', '-606', Array(17).fill('606').join(' ')])
			expect(typedMhz(wrong), wrong).toBeNull();
	});
});
