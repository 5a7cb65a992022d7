import { describe, expect, it } from 'vitest';
import { newEntry, standings, withSteps, type CheckedRun, type Known } from './check';
import { clockOf, doorsWords, isLate, minutesTo, openItems, timeOn, workingTime } from './doors';

const runs: CheckedRun[] = ['keys', 'bass', 'main'].map((run, at) => ({
	run,
	number: at + 1,
	name: run,
	key: 'k'
}));
const step = {
	id: 'walk:room',
	phase: 'walk',
	name: 'Walk',
	words: 'Walk.',
	why: 'One seat of many.',
	things: []
} as const;
const items = withSteps(runs, { before: [], after: [{ ...step, things: [] }], losses: [] });
const loss = (run: string, sources: number, listeners: number) => ({
	run,
	words: `Without ${run}.`,
	heard: `Heard at every speaker: ${run}.`,
	sources,
	listeners
});
const losses = new Map(
	[loss('keys', 1, 4), loss('bass', 1, 4), loss('main', 9, 1)].map((each) => [each.run, each])
);
const answered = (run: string, answer: 'good' | 'wrong' | 'skipped', at = '2026-01-04T10:00:00Z'): Known =>
	newEntry('check', { run, answer, checked: 'k', at });

describe('what is not good yet', () => {
	const of = (entries: Known[]) => openItems(items, standings(entries, [], runs), losses);

	it('has what is wrong first, then what costs most', () => {
		expect(of([]).map(({ item }) => item.run)).toEqual(['main', 'keys', 'bass', 'walk:room']);
		const some = of([answered('bass', 'wrong'), answered('main', 'good'), answered('keys', 'skipped')]);
		expect(some.map(({ item, state }) => [item.run, state])).toEqual([
			['bass', 'wrong'],
			['walk:room', 'open'],
			['keys', 'skipped']
		]);
		expect(some.map((each) => each.loss)).toEqual(['Without bass.', 'One seat of many.', 'Without keys.']);
	});

	it('says where it is heard while it plays, and what is missing while it is silent', () => {
		const wrong = (heard: 'hum' | 'silent') =>
			of([{ ...answered('keys', 'wrong'), heard }]).find(({ item }) => item.run === 'keys')?.loss;
		expect(wrong('hum')).toBe('Heard at every speaker: keys.');
		expect(wrong('silent')).toBe('Without keys.');
	});

	it('is nothing once everything is good, steps too', () => {
		const all = [
			...runs.map(({ run }) => answered(run, 'good')),
			newEntry('step', { step: 'walk:room', answer: 'good' })
		];
		expect(of(all)).toEqual([]);
	});
});

describe('the doors', () => {
	const now = Date.parse('2026-01-04T18:50:30Z');

	it('are counted in whole minutes, and said when they are open', () => {
		expect(minutesTo('2026-01-04T19:00:00Z', now)).toBe(10);
		expect(doorsWords(10)).toBe('Doors in 10 min');
		expect(doorsWords(0)).toBe('Doors now');
		expect(doorsWords(-3)).toBe('Doors open for 3 min');
		expect(doorsWords(150)).toBe('Doors in 2 h 30 min');
		expect(doorsWords(5 * 24 * 60 + 9)).toBe('Doors in 5 days');
		expect([isLate(11), isLate(10), isLate(-1)]).toEqual([false, true, true]);
	});

	it('are at a time on the day of the occasion', () => {
		const at = new Date(timeOn('2026-01-04T09:00:00', '19:30') ?? '');
		expect([at.getDate(), at.getHours(), at.getMinutes()]).toEqual([4, 19, 30]);
		expect(timeOn('2026-01-04T09:00:00', '')).toBeNull();
		expect(clockOf(timeOn('2026-01-04T09:00:00', '07:05') ?? '')).toBe('07:05');
	});

	it('and how long the work took is from the first answer to the last', () => {
		const entries = [
			answered('keys', 'wrong', '2026-01-04T17:00:00Z'),
			answered('keys', 'good', '2026-01-04T17:34:00Z')
		];
		expect(workingTime(entries)?.minutes).toBe(34);
		expect(workingTime([])).toBeNull();
	});
});
