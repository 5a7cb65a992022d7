/** The line check: where each run stands by what was answered, and entries as a device makes them. */
import { nowAsText } from './format';
import type { Schemas } from '../api/client';
import { newId } from './ids';

export type Card = Schemas['CheckCard'];
export type NewEntry = Schemas['NewEntry'];
export type Heard = NonNullable<NewEntry['heard']>;
export type Answer = NonNullable<NewEntry['answer']>;

/** What can be wrong, as it is said at the desk, in the order of the buttons. */
export const HEARD: readonly { id: Heard; words: string }[] = [
	{ id: 'silent', words: 'Silent' },
	{ id: 'one_side', words: 'One side only' },
	{ id: 'thin', words: 'Thin and hollow' },
	{ id: 'hum', words: 'Hum or buzz' },
	{ id: 'crackle', words: 'Crackle' },
	{ id: 'weak', words: 'Weak' },
	{ id: 'distorted', words: 'Distorted' }
];

/** Of a line of lighting data. */
export const SEEN: readonly { id: Heard; words: string }[] = [
	{ id: 'silent', words: 'Lamps do nothing' },
	{ id: 'crackle', words: 'Lamps flicker or jump' }
];

export const inWords = (heard: Heard): string => HEARD.find(({ id }) => id === heard)?.words ?? heard;

export type RoundStep = Schemas['RoundStep'];

/** A run of the check; or a step beside the runs, under its own id. */
export interface CheckedRun {
	run: string;
	number: number;
	name: string;
	/** Of its details: the same key means the same card. */
	key: string;
	/** As it is wired and set: an answer names it, and another one means that the run is to be checked again. What a
	 * device kept before there was one has none. */
	checked?: string | null;
	step?: RoundStep;
}

/** Everything that is checked, in order: radio microphones, the runs, and what comes after them. */
export const withSteps = (
	runs: readonly CheckedRun[],
	round: Schemas['Round'] | null | undefined
): CheckedRun[] => [...(round?.before ?? []).map(ofStep), ...runs, ...(round?.after ?? []).map(ofStep)];

const ofStep = (step: RoundStep): CheckedRun => ({ run: step.id, number: 0, name: step.name, key: '', step });

export interface Standing {
	answer: Answer;
	heard: Heard | null;
	words: string;
	person: string;
	at: string;
	entry: string;
	photos: readonly string[];
	/** The run is wired or set otherwise since. */
	changed: boolean;
	/** Still on this device alone. */
	unsent: boolean;
}

/** An entry as it counts here: from the server, or made on this device and not sent yet. */
export type Known = NewEntry & { person?: string; number?: number };

/** Those that no later entry corrects, in the order in which they happened; at one moment, in that in which they came. */
export function counting<Entry extends Pick<NewEntry, 'id' | 'at' | 'corrects'>>(
	entries: readonly Entry[]
): Entry[] {
	const corrected = new Set(entries.map(({ corrects }) => corrects).filter((id) => id != null));
	return entries.filter(({ id }) => !corrected.has(id)).sort((a, b) => Date.parse(a.at) - Date.parse(b.at));
}

/** The last answer about each run: by when it happened, then by when it came in; corrected ones do not count. */
export function standings(
	entries: readonly Known[],
	unsent: readonly string[],
	runs: readonly CheckedRun[]
): Map<string, Standing> {
	const here = new Set(unsent);
	const asNow = new Map(runs.map(({ run, checked }) => [run, checked]));
	const result = new Map<string, Standing>();
	for (const entry of counting(entries)) {
		const of = entry.kind === 'check' ? entry.run : entry.kind === 'step' ? entry.step : null;
		if (of == null || entry.answer == null) continue;
		const now = asNow.get(of);
		result.set(of, {
			answer: entry.answer,
			heard: entry.heard ?? null,
			words: entry.words ?? '',
			person: entry.person ?? 'this device',
			at: entry.at,
			entry: entry.id,
			photos: entry.photos ?? [],
			changed: now != null && entry.checked != null && entry.checked !== now,
			unsent: here.has(entry.id)
		});
	}
	return result;
}

/** A rig's runs as its analysis knows them. */
export function checkedRuns(runs: readonly Schemas['Run'][], overview: Schemas['Overview']): CheckedRun[] {
	const known = new Map(overview.runs.map((summary) => [summary.run, summary]));
	return runs.map(({ id, number, name }) => ({
		run: id,
		number,
		name,
		key: known.get(id)?.key ?? '',
		checked: known.get(id)?.checked ?? null
	}));
}

/** Cards that still hold: of runs whose details are what they were. */
export function keptCards(
	cards: Readonly<Record<string, Card>>,
	before: readonly CheckedRun[],
	now: readonly CheckedRun[]
): Record<string, Card> {
	const keys = new Map(before.map(({ run, key }) => [run, key]));
	const result: Record<string, Card> = {};
	for (const { run, key } of now) {
		const card = cards[run];
		if (card !== undefined && keys.get(run) === key) result[run] = card;
	}
	return result;
}

export type State = 'open' | 'good' | 'wrong' | 'skipped' | 'changed';

export const stateOf = (standing: Standing | undefined): State =>
	standing === undefined ? 'open' : standing.changed ? 'changed' : standing.answer;

export const STATE_WORDS: Record<State, string> = {
	open: 'not checked yet',
	good: 'good',
	wrong: 'wrong',
	skipped: 'skipped',
	changed: 'changed since, check again'
};

/** The next run that nobody has answered as good: after this one, then from the start; null when all are good. */
export function nextOpen(
	runs: readonly CheckedRun[],
	standing: ReadonlyMap<string, Standing>,
	after: string | null
): string | null {
	const at = runs.findIndex(({ run }) => run === after);
	const order = [...runs.slice(at + 1), ...runs.slice(0, at + 1)];
	const is = (states: readonly State[]) =>
		order.find(({ run }) => states.includes(stateOf(standing.get(run))));
	return (is(['open', 'changed']) ?? null)?.run ?? null;
}

/** What happened just now on this device. */
export const newEntry = (kind: NewEntry['kind'], more: Partial<NewEntry>): NewEntry => ({
	id: newId(),
	at: nowAsText(),
	kind,
	run: null,
	things: [],
	words: '',
	answer: null,
	heard: null,
	checked: null,
	measured: null,
	tested: null,
	step: null,
	photos: [],
	corrects: null,
	...more
});

export const checkEntry = (run: CheckedRun, answer: Answer, more: Partial<NewEntry> = {}): NewEntry =>
	run.step
		? newEntry('step', { step: run.run, things: run.step.things.slice(0, MOST_THINGS), answer, ...more })
		: newEntry('check', { run: run.run, checked: run.checked ?? null, answer, ...more });

/** Somebody is there now: on stage playing it, or mending it. */
export const workingEntry = (run: CheckedRun): NewEntry =>
	newEntry('working', run.step ? { step: run.run } : { run: run.run });

const MOST_THINGS = 20;

/** What was answered last on this device, to take it back or to look into it. */
export interface AnsweredLast {
	words: string;
	answer: Answer | null;
	/** The run, where something is wrong with it. */
	wrong: string | null;
}

export function answeredLast(entry: NewEntry, items: readonly CheckedRun[]): AnsweredLast {
	const answer = entry.answer ?? null;
	return {
		words: items.find(({ run }) => run === (entry.step ?? entry.run))?.name ?? '',
		answer,
		wrong: answer === 'wrong' ? (entry.run ?? null) : null
	};
}

export const causesOf = (card: Card | undefined, heard: Heard): Schemas['LikelyCause'][] =>
	(card?.causes ?? []).filter((cause) => cause.heard === heard);
