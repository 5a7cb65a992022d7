/** Runs by where they go, in the rig's order. */
import type { RigView } from '../api/rig-view';
import type { Schemas } from '../api/client';
import { number } from './format';
import { GRADES, worstOf, type Grade } from './grades';

const HEADINGS: Record<Grade, string> = {
	stop: 'Stop: do not go on like this',
	fix: 'Fix: an audience will notice',
	watch: 'Watch: little margin',
	clear: 'Clear'
};

export interface Group {
	words: string;
	/** What the device makes of all its inputs together, where it has several. */
	together: string;
	runs: Schemas['RunAnalysis'][];
}

export function grouped(state: RigView): Group[] {
	const names = new Map((state.rig.gear ?? []).map((gear) => [gear.id, gear.name]));
	const groups = new Map<string, Group>();
	for (const run of state.analysis.runs) {
		const into = run.result.inputs[0]?.gear;
		const words = into ? `Into ${names.get(into) ?? into}` : 'Not connected yet';
		const heard = state.analysis.destinations?.find((one) => one.gear === into);
		const together = heard && heard.inputs.length > 1 ? togetherWords(heard) : '';
		const group = groups.get(words) ?? { words, together, runs: [] };
		group.runs.push(run);
		groups.set(words, group);
	}
	return [...groups.values()];
}

/** The same runs by their worst finding, in the rig's order within a grade. */
export function worstFirst(state: RigView): Group[] {
	return GRADES.map((grade) => ({
		words: HEADINGS[grade],
		together: '',
		runs: state.analysis.runs.filter((run) => worstOf(run) === grade)
	})).filter((group) => group.runs.length > 0);
}

/** The first of the worst: what a stranger should see. */
export const worstRun = (state: RigView): Schemas['RunAnalysis'] | undefined => worstFirst(state)[0]?.runs[0];

/** "its 8 inputs together: hum 64.0 dB under the programme, 21.0 dBA at the listener in a room of 30". */
export function togetherWords(heard: Schemas['DestinationResult']): string {
	const hum = `its ${heard.inputs.length} inputs together: hum ${number(heard.hum_below_db)} dB under the programme`;
	const hiss = `hiss ${number(heard.noise_below_db)} dB`;
	if (heard.hum_dba === null) return `${hum}, ${hiss}`;
	const room = heard.room_dba === null ? '' : ` in a room of ${number(heard.room_dba, 0)}`;
	return `${hum}, ${number(heard.hum_dba, 0)} dBA at the listener${room}; ${hiss}`;
}
