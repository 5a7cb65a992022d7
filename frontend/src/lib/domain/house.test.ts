import { describe, expect, it } from 'vitest';
import { houseEdit, lengthSaid, numberSaid } from './house';

describe('house rules', () => {
	it('say one thing and nothing about the others', () => {
		expect(houseEdit('screens', 'through-capacitor').ops).toEqual([
			{ op: 'set', kind: 'venue', id: null, field: 'house', key: 'screens', value: 'through-capacitor' }
		]);
		expect(houseEdit('noise_dba', 30).ops).toEqual([
			{ op: 'set', kind: 'venue', id: null, field: 'noise_dba', key: null, value: 30 }
		]);
	});

	it('an empty field takes the answer back', () => {
		expect(numberSaid(' ')).toBeNull();
		expect(numberSaid('85')).toBe(85);
		expect(lengthSaid('', 'm')).toBeNull();
	});

	it('a length in feet is kept in metres', () => {
		expect(lengthSaid('25', 'ft')).toBeCloseTo(7.62);
	});
});
