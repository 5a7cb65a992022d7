/** Who is at which run or step now, and what the parts of two people at one check are. */
import { counting, type Known, type Standing } from './check';

export type Role = 'alone' | 'stage' | 'desk';

export const ROLES: readonly { id: Role; words: string }[] = [
	{ id: 'alone', words: 'Alone' },
	{ id: 'stage', words: 'On stage' },
	{ id: 'desk', words: 'At the desk' }
];

export interface Worker {
	item: string;
	person: string;
	at: string;
	entry: string;
	/** Said on this device. */
	own: boolean;
}

/** After so long without an answer somebody is not taken to be there any longer. */
const GONE_AFTER_MS = 20 * 60 * 1000;

/** The latest thing that each person said to be at, unless it was answered since; the latest first. */
export function workers(
	entries: readonly Known[],
	own: ReadonlySet<string>,
	standing: ReadonlyMap<string, Standing>,
	now: number
): Worker[] {
	const latest = new Map<string, Worker>();
	for (const entry of counting(entries)) {
		const item = entry.step ?? entry.run;
		// What takes it back says where it was too.
		if (entry.kind !== 'working' || item == null || entry.corrects != null) continue;
		const person = entry.person ?? 'this device';
		latest.set(person, { item, person, at: entry.at, entry: entry.id, own: own.has(entry.id) });
	}
	return [...latest.values()]
		.filter(({ item, at }) => {
			const answered = standing.get(item);
			const isAnswered = answered !== undefined && Date.parse(answered.at) >= Date.parse(at);
			return !isAnswered && now - Date.parse(at) < GONE_AFTER_MS;
		})
		.sort((a, b) => Date.parse(b.at) - Date.parse(a.at));
}

/** Their names by what they are at. */
export function byItem(all: readonly Worker[]): Map<string, string[]> {
	const result = new Map<string, string[]>();
	for (const { item, person } of all) result.set(item, [...(result.get(item) ?? []), person]);
	return result;
}
