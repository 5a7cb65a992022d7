import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { houseEdit, lengthSaid, levelSaid } from './house';

const limit = { value: 7.5, low: null, high: null, source: 'common practice' };
const rig = {
	venue: {
		house: { unbalanced_limit_m: limit, screens: 'both-ends', passive_y: 'never' },
		programme_db_spl: 85,
		noise_dba: null
	}
} as unknown as Schemas['Rig'];

describe('house rules', () => {
	it('say one thing and leave the others as they were', () => {
		expect(houseEdit(rig, { screens: 'through-capacitor' }).ops[0]).toEqual({
			op: 'set_house',
			house: { unbalanced_limit_m: limit, screens: 'through-capacitor', passive_y: 'never' },
			programme_db_spl: 85,
			noise_dba: null
		});
	});

	it('an empty level takes the answer back, an empty length is none', () => {
		expect(houseEdit(rig, { programme_db_spl: levelSaid(' ') }).ops[0]).toMatchObject({
			programme_db_spl: null
		});
		expect(lengthSaid('', 'm')).toBeNull();
		expect(lengthSaid('-3', 'm')).toBeNull();
	});

	it('a length in feet is kept in metres', () => {
		expect(lengthSaid('25', 'ft')?.unbalanced_limit_m).toBeCloseTo(7.62);
	});
});
