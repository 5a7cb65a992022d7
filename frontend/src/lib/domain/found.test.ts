import { describe, expect, it } from 'vitest';
import { placeOf } from './address';
import { KINDS, leadsTo, looksFor, type Match } from './found';

describe('what was found', () => {
	it('leads somewhere, whatever it is', () => {
		for (const kind of Object.keys(KINDS) as Match['kind'][]) {
			const match = { kind, words: 'x', rig: 'hall', rig_name: 'Hall', starts_at: null, thing: 'keys' };
			expect(placeOf(leadsTo(match))).not.toBeNull();
		}
		expect(
			leadsTo({
				kind: 'finding',
				words: 'hums',
				rig: 'hall',
				rig_name: 'Hall',
				starts_at: null,
				thing: 'keys'
			})
		).toBe('/rigs/hall/runs/keys');
	});

	it('is looked for while no line is written', () => {
		expect(['keys', 'two words', 'm31'].map(looksFor)).toEqual([true, true, true]);
		expect(['k', ' ', 'keys > desk', 'keys → desk', 'a\nb'].map(looksFor)).toEqual([
			false,
			false,
			false,
			false,
			false
		]);
	});
});
