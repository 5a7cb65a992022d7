import { describe, expect, it } from 'vitest';
import { inWords } from './meetings';

const one = { kind: 'kit', id: 'lead-31', field: 'length_m', key: null, by: 'Second', label: '20 m' };

describe('a field two people changed', () => {
	it('says where, and both values', () => {
		expect(inWords({ ...one, yours: 30, theirs: 20 })).toEqual({
			place: 'lead-31, length m',
			yours: '30',
			theirs: '20',
			by: 'Second'
		});
	});

	it('names things by their names and figures by their values', () => {
		const words = inWords({
			...one,
			field: null,
			yours: { name: 'Desk' },
			theirs: { value: 3, source: 'x' }
		});
		expect([words.place, words.yours, words.theirs]).toEqual(['lead-31', 'Desk', '3']);
	});

	it('says what is gone, and cuts what is long', () => {
		const words = inWords({ ...one, yours: null, theirs: 'x'.repeat(200) });
		expect(words.yours).toContain('removed');
		expect(words.theirs).toHaveLength(61);
	});
});
