/** The house's cupboard by store, and what of it is not as it should be. */
import type { Schemas } from '../api/client';

export type Entry = Schemas['CupboardEntry'];
export type Condition = Entry['condition'];

export const CONDITIONS: Record<Condition, string> = {
	good: 'good',
	suspect: 'suspect',
	faulty: 'faulty',
	away: 'away'
};

export type Show = 'all' | 'taken' | 'unfit';
export const SHOWN: Record<Show, string> = {
	all: 'All',
	taken: 'Taken',
	unfit: 'Suspect, faulty or away'
};

export interface StoreShelf {
	store: string;
	entries: Entry[];
}

const KINDS: Entry['kind'][] = ['lead', 'box', 'adapter', 'gear'];

/** By store in the order in which they first appear; in each by kind, then what it is, then length, then name. */
export function byStore(entries: readonly Entry[]): StoreShelf[] {
	const stores = new Map<string, StoreShelf>();
	for (const entry of entries) {
		const key = entry.store.toLowerCase();
		const shelf = stores.get(key) ?? { store: entry.store, entries: [] };
		shelf.entries.push(entry);
		stores.set(key, shelf);
	}
	for (const { entries: own } of stores.values()) {
		own.sort(
			(a, b) =>
				KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) ||
				a.part.localeCompare(b.part) ||
				(a.length_m ?? 0) - (b.length_m ?? 0) ||
				a.name.localeCompare(b.name, undefined, { numeric: true })
		);
	}
	return [...stores.values()];
}

/** Entries with all the words in what is said of them. */
export function matching(entries: readonly Entry[], text: string, show: Show): Entry[] {
	const words = text.toLowerCase().split(/\s+/).filter(Boolean);
	return entries.filter((entry) => {
		if (show === 'unfit' && entry.condition === 'good') return false;
		if (show === 'taken' && entry.holdings.length === 0) return false;
		const held = entry.holdings.map(({ rig_name, occasion }) => `${rig_name} ${occasion}`).join(' ');
		const said =
			`${entry.name} ${entry.part} ${entry.store} ${entry.condition} ${entry.remark} ${entry.length_m ?? ''} ${held}`.toLowerCase();
		return words.every((word) => said.includes(word));
	});
}

export interface Figures {
	things: number;
	taken: number;
	suspect: number;
	faulty: number;
	away: number;
}

/** The cupboard in figures: every piece counts, and one that several have taken counts once. */
export function figuresOf(entries: readonly Entry[]): Figures {
	const result: Figures = { things: 0, taken: 0, suspect: 0, faulty: 0, away: 0 };
	for (const { count, condition, holdings } of entries) {
		result.things += count;
		result.taken += new Set(holdings.map(({ number }) => number)).size;
		if (condition !== 'good') result[condition] += count;
	}
	return result;
}
