import { describe, expect, it } from 'vitest';
import { byStore, figuresOf, matching, type Entry } from './cupboard';

const entry = (name: string, more: Partial<Entry> = {}): Entry => ({
	id: name.toLowerCase(),
	name,
	part: 'Microphone lead',
	kind: 'lead',
	count: 1,
	store: 'cupboard',
	condition: 'good',
	remark: '',
	length_m: 10,
	holdings: [],
	...more
});
const held = (number = 1) => ({
	item: 'x',
	number,
	rig: 'hall',
	rig_name: 'Hall',
	occasion: 'Evening',
	starts_at: '2026-12-05T18:00:00Z',
	ends_at: '2026-12-05T22:00:00Z'
});

describe('the cupboard', () => {
	it('stands by store, in each by kind, length and tag as people count', () => {
		const stores = byStore([
			entry('M10'),
			entry('Desk', { kind: 'gear', part: 'Digital desk', length_m: null }),
			entry('V1', { store: 'Van' }),
			entry('M2'),
			entry('M1', { length_m: 5 }),
			entry('V2', { store: 'van' })
		]);
		expect(stores.map(({ store, entries }) => [store, entries.map(({ name }) => name)])).toEqual([
			['cupboard', ['M1', 'M2', 'M10', 'Desk']],
			['Van', ['V1', 'V2']]
		]);
	});

	it('is searched by all words, in what it is, where, how and who has it', () => {
		const all = [
			entry('M1', { condition: 'suspect', remark: 'crackles' }),
			entry('M2', { holdings: [held()] }),
			entry('V1', { store: 'Van', condition: 'away' })
		];
		const names = (text: string, show: 'all' | 'taken' | 'unfit' = 'all') =>
			matching(all, text, show).map(({ name }) => name);
		expect(names('')).toEqual(['M1', 'M2', 'V1']);
		expect(names('CRACKLES lead')).toEqual(['M1']);
		expect(names('evening')).toEqual(['M2']);
		expect(names('van')).toEqual(['V1']);
		expect(names('', 'taken')).toEqual(['M2']);
		expect(names('', 'unfit')).toEqual(['M1', 'V1']);
		expect(names('m2', 'unfit')).toEqual([]);
	});

	it('is counted by pieces', () => {
		expect(
			figuresOf([
				entry('six', { count: 6, holdings: [held(1), held(2), held(2)] }),
				entry('M1', { condition: 'faulty' }),
				entry('M2', { condition: 'away', holdings: [held()] })
			])
		).toEqual({ things: 8, taken: 3, suspect: 0, faulty: 1, away: 1 });
	});
});
