import { describe, expect, it } from 'vitest';
import { checkEntry, nextOpen, standings, stateOf, type CheckedRun, type Known } from './check';

const RUNS: CheckedRun[] = ['a', 'b', 'c'].map((run, number) => ({
	run,
	number,
	name: run,
	key: `${run}${run}`,
	checked: `${run}${run}`
}));
const [A, B] = RUNS as [CheckedRun, CheckedRun];

const known = (entry: Known, minute: number): Known => ({ ...entry, at: `2026-11-29T16:0${minute}:00Z` });

describe('standings', () => {
	it('takes the last answer by when it happened, though it came first', () => {
		const late = known(checkEntry(A, 'good'), 9);
		const early = known(checkEntry(A, 'wrong', { heard: 'hum' }), 1);
		expect(standings([late, early], [], RUNS).get('a')?.answer).toBe('good');
	});

	it('puts a correction in the place of what it corrects', () => {
		const wrong = known(checkEntry(A, 'wrong'), 1);
		const right = known(checkEntry(A, 'good', { corrects: wrong.id }), 1);
		expect(standings([right, wrong], [], RUNS).get('a')?.answer).toBe('good');
	});

	it('says what is on this device alone, and what was changed since', () => {
		const entry = checkEntry(A, 'good');
		const found = standings([entry], [entry.id], [{ ...A, key: 'other', checked: 'other' }]).get('a');
		expect([found?.unsent, found?.changed]).toEqual([true, true]);
		expect(stateOf(found)).toBe('changed');
	});

	it('lets an answer hold where figures moved, or where it is not known how the run was', () => {
		const entry = checkEntry(A, 'good');
		for (const now of [
			{ ...A, key: 'other' },
			{ ...A, checked: null }
		])
			expect(standings([entry], [], [now]).get('a')?.changed).toBe(false);
		const { checked, ...kept } = A;
		expect(checked).toBe('aa');
		expect(checkEntry(kept, 'good').checked).toBeNull();
	});
});

describe('nextOpen', () => {
	it('goes on after the run, then begins again, and ends when every run is answered', () => {
		const some = [checkEntry(B, 'good')];
		expect(nextOpen(RUNS, standings(some, [], RUNS), 'a')).toBe('c');
		expect(nextOpen(RUNS, standings(some, [], RUNS), 'c')).toBe('a');
		const all = RUNS.map((run) => checkEntry(run, 'skipped'));
		expect(nextOpen(RUNS, standings(all, [], RUNS), null)).toBeNull();
	});
});
