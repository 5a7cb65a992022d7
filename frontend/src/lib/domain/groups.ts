/** Runs by where they go, in the rig's order. */
import type { Schemas } from '../api/client';

export interface Group {
	words: string;
	runs: Schemas['RunAnalysis'][];
}

export function grouped(state: Schemas['RigState']): Group[] {
	const names = new Map((state.rig.gear ?? []).map((gear) => [gear.id, gear.name]));
	const groups = new Map<string, Group>();
	for (const run of state.analysis.runs) {
		const into = run.result.inputs[0]?.gear;
		const words = into ? `Into ${names.get(into) ?? into}` : 'Not connected yet';
		const group = groups.get(words) ?? { words, runs: [] };
		group.runs.push(run);
		groups.set(words, group);
	}
	return [...groups.values()];
}
