import { newGear } from './records';
import { describe, expect, it } from 'vitest';
import { db, dbu, fromMetres, hertz, length, number, ohm, signed, toMetres } from './format';
import { heard } from './heard';
import { valueOf } from './settings';

describe('numbers', () => {
	it('carry a true minus sign and a tenth at most', () => {
		expect(number(-12.34)).toBe('−12.3');
		expect(number(-0.04)).toBe('0.0');
		expect(number(123.4)).toBe('123');
		expect(signed(6.02)).toBe('+6.0');
		expect(signed(0.01)).toBe('0.0');
	});

	it('carry their unit', () => {
		expect(db(3)).toBe('3.0 dB');
		expect(dbu(4)).toBe('+4.0 dBu');
		expect(ohm(11.81)).toBe('11.8 Ω');
		expect(ohm(10_000)).toBe('10.0 kΩ');
		expect(hertz(200)).toBe('200 Hz');
		expect(hertz(10_000)).toBe('10.0 kHz');
	});

	it('come in metres or feet', () => {
		expect(length(15, 'm')).toBe('15 m');
		expect(length(15, 'ft')).toBe('49.2 ft');
		expect(toMetres(fromMetres(7.5, 'ft'), 'ft')).toBeCloseTo(7.5, 12);
	});
});

describe('what an input hears', () => {
	const channel = (name: string, in_phase: boolean | null) => ({
		source: 0,
		channel: name,
		gain_db: 0,
		floored: false,
		in_phase
	});

	it('is one expression', () => {
		expect(heard([channel('L', true), channel('R', false)])).toBe('L − R');
		expect(heard([channel('L', true), channel('R', true)])).toBe('L + R');
		expect(heard([channel('L', null), channel('R', true)])).toBe('R');
		expect(heard([channel('1', false)])).toBe('−1');
		expect(heard([channel('L', null), channel('R', null)])).toBe('—');
	});
});

describe('a setting', () => {
	const mono = { type: 'switch' as const, id: 'mono', label: 'Mono', default: false };

	const gear = newGear({ id: 'a', name: 'A', part: 'p' });
	it('is the gear’s own, or its part’s default', () => {
		expect(valueOf({ ...gear, settings: {} }, mono)).toBe(false);
		expect(valueOf({ ...gear, settings: { mono: true } }, mono)).toBe(true);
	});
});
