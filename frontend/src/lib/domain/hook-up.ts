/** Where the hook-up stands, from what was done, skipped and taken back on any device. */
import type { Schemas } from '../api/client';
import { counting } from './check';

export type Step = Schemas['HookUpStep'];
export type Phase = Step['phase'];
type Known = Pick<Schemas['NewEntry'], 'id' | 'at' | 'kind' | 'step' | 'answer' | 'words' | 'corrects'> & {
	person?: string;
};

export const PHASES: Record<Phase, string> = {
	place: 'Put up',
	quiet: 'Mute, and power off',
	connect: 'Connect',
	power: 'Switch on',
	phantom: 'Phantom',
	choose: 'Computers',
	level: 'Levels',
	call: 'Call',
	mute: 'Mute',
	off: 'Switch off',
	unplug: 'Unplug'
};

export interface StepState {
	answer: 'good' | 'skipped';
	person: string;
	at: string;
	entry: string;
	note: string;
}

/** The last word about each step; one that was taken back has none. */
export function stepStates(entries: readonly Known[]): Map<string, StepState> {
	const result = new Map<string, StepState>();
	for (const { id, at, kind, step, answer, words, person } of counting(entries)) {
		if (kind !== 'step' || step == null) continue;
		if (answer !== 'good' && answer !== 'skipped') continue;
		result.set(step, { answer, person: person ?? 'this device', at, entry: id, note: words ?? '' });
	}
	return result;
}

export interface PhaseSteps {
	phase: Phase;
	steps: Step[];
}

/** Neighbouring steps of one phase together, in their order. */
export function byPhase(steps: readonly Step[]): PhaseSteps[] {
	const result: PhaseSteps[] = [];
	for (const step of steps) {
		const last = result.at(-1);
		if (last?.phase === step.phase) last.steps.push(step);
		else result.push({ phase: step.phase, steps: [step] });
	}
	return result;
}

/** What has to be done before a step and is not. */
export const waitingFor = (step: Step, states: ReadonlyMap<string, StepState>): string[] =>
	step.after.filter((id) => !states.has(id));

export function countWords(steps: readonly Step[], states: ReadonlyMap<string, StepState>): string {
	const done = steps.filter(({ id }) => states.get(id)?.answer === 'good').length;
	const skipped = steps.filter(({ id }) => states.get(id)?.answer === 'skipped').length;
	return `${done} of ${steps.length} done${skipped > 0 ? `, ${skipped} skipped` : ''}`;
}
