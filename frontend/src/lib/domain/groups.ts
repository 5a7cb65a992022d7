/** Runs in the order of the list: as numbered, by where they go, or the worst first. */
import type { RigView } from '../api/rig-view';
import type { Schemas } from '../api/client';
import { number } from './format';
import { GRADES, type Grade } from './grades';

type Summary = Schemas['RunSummary'];

export const ORDERS = {
	listed: 'As numbered',
	place: 'By destination',
	worst: 'Worst first'
} as const;
export type Order = keyof typeof ORDERS;

const HEADINGS: Record<Grade, string> = {
	stop: 'Stop: do not go on like this',
	fix: 'Fix: an audience will notice',
	watch: 'Watch: little margin',
	clear: 'Clear'
};

export interface Group {
	/** Empty where the runs are not grouped. */
	words: string;
	/** What the device makes of all its inputs together, where it has several. */
	together: string;
	runs: Summary[];
}

export function groupsOf(state: RigView, order: Order): Group[] {
	if (order === 'worst') return worstFirst(state);
	return order === 'place' ? byDestination(state) : asNumbered(state);
}

function asNumbered(state: RigView): Group[] {
	const numbers = new Map((state.rig.runs ?? []).map((run) => [run.id, run.number]));
	const runs = state.analysis.runs.toSorted(
		(one, other) => (numbers.get(one.run) ?? 0) - (numbers.get(other.run) ?? 0)
	);
	return runs.length > 0 ? [{ words: '', together: '', runs }] : [];
}

/** In the rig's order. */
export function byDestination(state: RigView): Group[] {
	const names = new Map((state.rig.gear ?? []).map((gear) => [gear.id, gear.name]));
	const groups = new Map<string, Group>();
	for (const run of state.analysis.runs) {
		const words = run.into === null ? 'Not connected yet' : `Into ${names.get(run.into) ?? run.into}`;
		const heard = state.analysis.destinations?.find((one) => one.gear === run.into);
		const together = heard && heard.inputs.length > 1 ? togetherWords(heard) : '';
		const group = groups.get(words) ?? { words, together, runs: [] };
		group.runs.push(run);
		groups.set(words, group);
	}
	return [...groups.values()];
}

/** By their worst finding, in the rig's order within a grade. */
export function worstFirst(state: RigView): Group[] {
	return GRADES.map((grade) => ({
		words: HEADINGS[grade],
		together: '',
		runs: state.analysis.runs.filter((run) => run.grade === grade)
	})).filter((group) => group.runs.length > 0);
}

/** The first of the worst: what a stranger should see. */
export const worstRun = (state: RigView): Summary | undefined => worstFirst(state)[0]?.runs[0];

/** A line of the list: a heading, or a run. */
export type Row = { kind: 'heading'; key: string; group: Group } | { kind: 'run'; key: string; run: Summary };

export function rowsOf(state: RigView, order: Order): Row[] {
	const rows: Row[] = [];
	for (const group of groupsOf(state, order)) {
		if (group.words) rows.push({ kind: 'heading', key: `heading ${group.words}`, group });
		for (const run of group.runs) rows.push({ kind: 'run', key: `run ${run.run}`, run });
	}
	return rows;
}

/** "its 8 inputs together: hum 64.0 dB under the programme, 21.0 dBA at the listener in a room of 30". */
export function togetherWords(heard: Schemas['DestinationResult']): string {
	const hum = `its ${heard.inputs.length} inputs together: hum ${number(heard.hum_below_db)} dB under the programme`;
	const hiss = `hiss ${number(heard.noise_below_db)} dB`;
	if (heard.hum_dba === null) return `${hum}, ${hiss}`;
	const room = heard.room_dba === null ? '' : ` in a room of ${number(heard.room_dba, 0)}`;
	return `${hum}, ${number(heard.hum_dba, 0)} dBA at the listener${room}; ${hiss}`;
}
