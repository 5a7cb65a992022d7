import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { at, givens, typeset } from './formulas';

const headroom: Schemas['Formula'] = {
	figure: 'levels.headroom_db',
	name: 'Headroom',
	unit: 'dB',
	expression: 'clips - peaks',
	inputs: [
		{ symbol: 'clips', path: 'levels.clip_dbu', words: 'where it clips', unit: 'dBu' },
		{ symbol: 'peaks', path: 'levels.peak_dbu', words: 'loudest passages', unit: 'dBu' }
	],
	source: 'definition'
};

describe('paths', () => {
	it('lead into records and into each of a list', () => {
		const scope = { hum: { causes: [{ dbu: -60 }, { dbu: -70 }] } };
		expect(at('hum.causes[].dbu', scope)).toEqual([-60, -70]);
		expect(at('noise.total', scope)).toBeUndefined();
	});
});

describe('a formula', () => {
	it('is shown with its inputs and units', () => {
		const found = givens(headroom, { levels: { clip_dbu: 22, peak_dbu: -4.25 } });
		expect(found?.map((one) => one.value)).toEqual(['22.0 dBu', '−4.3 dBu']);
	});

	it('is not shown where an input is missing', () => {
		expect(givens(headroom, { levels: { clip_dbu: 22 } })).toBeNull();
	});

	it('is set as written by hand', () => {
		expect(typeset('10 * log10(10 ** (a / 10))')).toBe('10·log₁₀(10^(a/10))');
		expect(typeset('clips - peaks')).toBe('clips − peaks');
	});
});
