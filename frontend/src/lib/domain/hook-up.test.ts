import { describe, expect, it } from 'vitest';
import { byPhase, countWords, stepStates, waitingFor, type Step } from './hook-up';

const step = (id: string, phase: Step['phase'], after: string[] = []): Step => ({
	id,
	phase,
	words: id,
	why: '',
	things: [],
	run: null,
	after
});
const entry = (id: string, at: number, more: object = {}) => ({
	id,
	at: new Date(at * 1000).toISOString(),
	kind: 'step' as const,
	step: 'connect:keys',
	answer: 'good' as const,
	words: '',
	corrects: null,
	...more
});

describe('the hook-up', () => {
	it('stands where the last word left it', () => {
		const states = stepStates([entry('b', 2, { answer: 'skipped', words: 'no lead' }), entry('a', 1)]);
		expect(states.get('connect:keys')).toMatchObject({ answer: 'skipped', note: 'no lead' });
	});

	it('forgets what was taken back', () => {
		const states = stepStates([entry('a', 1), entry('b', 2, { answer: null, corrects: 'a' })]);
		expect(states.size).toBe(0);
	});

	it('says what a step waits for', () => {
		const steps = [step('quiet:desk', 'quiet'), step('connect:keys', 'connect', ['quiet:desk'])];
		expect(steps.map((each) => waitingFor(each, new Map()).length)).toEqual([0, 1]);
		expect(byPhase(steps).map(({ phase }) => phase)).toEqual(['quiet', 'connect']);
		expect(countWords(steps, stepStates([entry('a', 1)]))).toBe('1 of 2 done');
	});
});
