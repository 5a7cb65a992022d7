/** The pull list as it is read: lines by rig, leads as lengths on one scale, packing by store. */
import type { Schemas } from '../api/client';

export type PullList = Schemas['PullList'];
export type PullLine = Schemas['PullLine'];
export type PackLine = Schemas['PackLine'];

/** Metres that a line's drawing reaches: the longest of all, so that lengths can be compared down the list. */
export function scaleM(lines: readonly PullLine[]): number {
	const ends = lines.map((line) => Math.max(line.need_m, line.get_m ?? 0, reachM(line)));
	return Math.max(1, ...ends);
}

export const reachM = (line: PullLine): number => line.leads.reduce((sum, lead) => sum + lead.length_m, 0);

export interface RigLines {
	rig: string;
	name: string;
	lines: PullLine[];
}

/** The asked rig's first, then the others'. */
export function byRig(lines: readonly PullLine[], first: string): RigLines[] {
	const rigs = new Map<string, PullLine[]>();
	for (const line of lines) rigs.set(line.rig, [...(rigs.get(line.rig) ?? []), line]);
	return [...rigs]
		.map(([rig, own]) => ({ rig, name: own[0]?.rig_name ?? rig, lines: own }))
		.sort((a, b) => Number(b.rig === first) - Number(a.rig === first));
}

export interface StorePack {
	store: string;
	lines: PackLine[];
}

export const ELSEWHERE = 'Besides';

/** By store; what is in none of them last. */
export function byStore(packing: readonly PackLine[]): StorePack[] {
	const stores = new Map<string, PackLine[]>();
	for (const line of packing) {
		const store = line.store || ELSEWHERE;
		stores.set(store, [...(stores.get(store) ?? []), line]);
	}
	return [...stores]
		.map(([store, lines]) => ({ store, lines }))
		.sort((a, b) => Number(a.store === ELSEWHERE) - Number(b.store === ELSEWHERE));
}

const PERCENT = 100;

/** How good the assignment is, in a sentence. */
export function proofWords(list: PullList): string {
	if (list.proven) return 'No other assignment is better: that is proven.';
	return `The best found in ten seconds; at most ${(list.gap * PERCENT).toFixed(1)} % of its cost could still be saved.`;
}

/** For how many stretches there is a lead. */
export function countWords(lines: readonly PullLine[]): string {
	const there = lines.filter(({ leads }) => leads.length > 0).length;
	return `${there} of ${lines.length} ${lines.length === 1 ? 'lead' : 'leads'} that the runs need ${there === 1 ? 'is' : 'are'} in the house`;
}

/** The shortage in words: 2 × Microphone lead, 10 m. */
export const shortageWords = (
	{ count, part, length_m }: Schemas['Shortage'],
	length: (metres: number) => string
): string => `${count} × ${part}${length_m === null ? '' : `, ${length(length_m)}`}`;
