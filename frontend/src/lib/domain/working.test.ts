import { describe, expect, it } from 'vitest';
import { newEntry, standings, type Known } from './check';
import { workers } from './working';

const at = (minute: number): string => `2026-01-04T10:${String(minute).padStart(2, '0')}:00Z`;
const NOW = Date.parse(at(30));
const known = (person: string, minute: number, more: Partial<Known>): Known => ({
	...newEntry('working', { at: at(minute), ...more }),
	person
});

describe('who is at what', () => {
	const of = (entries: Known[]) => workers(entries, new Set(), standings(entries, [], []), NOW);

	it('is the latest of each person, the latest first', () => {
		const found = of([
			known('Ada', 12, { run: 'keys' }),
			known('Ada', 20, { run: 'bass' }),
			known('Olu', 18, { step: 'walk:room' })
		]);
		expect(found.map(({ person, item }) => [person, item])).toEqual([
			['Ada', 'bass'],
			['Olu', 'walk:room']
		]);
	});

	it('ends with an answer about it, when it is taken back, and after a while', () => {
		const there = known('Ada', 15, { run: 'keys' });
		const good = { ...newEntry('check', { at: at(16), run: 'keys', answer: 'good' }), person: 'Olu' };
		expect(of([there, good])).toEqual([]);
		expect(of([there, { ...known('Ada', 16, { run: 'keys', corrects: there.id }) }])).toEqual([]);
		expect(of([known('Ada', 5, { run: 'keys' })])).toEqual([]);
	});

	it('is there again when somebody goes back to what was answered', () => {
		const good = {
			...newEntry('check', { at: at(16), run: 'keys', answer: 'wrong' as const }),
			person: 'Olu'
		};
		expect(of([good, known('Ada', 17, { run: 'keys' })])).toHaveLength(1);
	});
});
