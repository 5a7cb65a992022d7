import { describe, expect, it } from 'vitest';
import { saidBands, saidMhz, typedBands, typedMhz } from './radio';

describe('frequencies', () => {
	it('are read with points and commas, one or several', () => {
		expect(typedMhz('606.5')).toEqual([606.5]);
		expect(typedMhz('606.5 MHz, 607,125')).toEqual([606.5, 607.125]);
		expect(typedMhz('606.5;607')).toEqual([606.5, 607]);
		expect(typedMhz('606.5,607.1 and 608')).toEqual([606.5, 607.1, 608]);
		expect(typedMhz('606.5MHz/2.4 GHz')).toEqual([606.5, 2400]);
		expect(typedMhz('')).toEqual([]);
		expect(saidMhz([606.5, 607])).toBe('606.5 607');
	});

	it('are none where they are no frequencies', () => {
		for (const wrong of ['six', '606.5.1', '5', '9000', '-606', Array(17).fill('606').join(' ')])
			expect(typedMhz(wrong), wrong).toBeNull();
	});
});

describe('what is taken at a place', () => {
	it('is read as bands and carriers, with who uses them', () => {
		const bands = [
			{ low_mhz: 470, high_mhz: 478, by: 'television' },
			{ low_mhz: 606.7, high_mhz: 606.7, by: 'the hall’s own' },
			{ low_mhz: 823, high_mhz: 826, by: '' }
		];
		expect(typedBands('470-478 MHz television; 606.7 the hall’s own; 826 to 823')).toEqual(bands);
		expect(typedBands('470–478 television, 606,7 MHz the hall’s own\n823-826')).toEqual(bands);
		expect(saidBands(bands)).toBe('470–478 television; 606.7 the hall’s own; 823–826');
		expect(typedBands(saidBands(bands))).toEqual(bands);
		expect(typedBands(' ; ')).toEqual([]);
		expect(typedBands('television 470-478; the hall’s own: 606.7; 823-826 MHz')).toEqual(bands);
		expect(typedBands('wireless network 2.4-2.48 GHz')?.[0]).toEqual({
			low_mhz: 2400,
			high_mhz: 2480,
			by: 'wireless network'
		});
		expect(typedBands('next room (606.5)')?.[0]?.by).toBe('next room');
	});

	it('is none where it is no frequency', () => {
		for (const wrong of ['television', '470-', '5-10', '470-9000', '606.5.1', '-478'])
			expect(typedBands(wrong), wrong).toBeNull();
	});
});
