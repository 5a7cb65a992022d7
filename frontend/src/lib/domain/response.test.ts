import { describe, expect, it } from 'vitest';
import { cornerWords } from './response';

describe('corners in words', () => {
	it('says nothing of a response without corners', () => {
		expect(cornerWords({ passband_db: 0, passband_low_hz: null, passband_high_hz: null })).toBe('');
	});
	it('names both corners, the one above hearing too', () => {
		const words = cornerWords({ passband_db: 0.1, passband_low_hz: 35, passband_high_hz: 98_700 });
		expect(words).toBe('; 3 dB down at 35 Hz and 98.7 kHz');
	});
	it('says from where they are counted where 1 kHz is down itself', () => {
		const words = cornerWords({ passband_db: 8.6, passband_low_hz: null, passband_high_hz: 400 });
		expect(words).toBe('; 3 dB down at 400 Hz, counted from its passband, 8.6 dB over 1 kHz');
	});
});
