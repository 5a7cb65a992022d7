/** The kit as a cupboard holds it: the same things of one length together, which are in use, which are free. */
import type { Schemas } from '../api/client';
import { set } from './ops';

type Rig = Schemas['Rig'];
type Item = NonNullable<Rig['kit']>[number];

export interface Piece {
	item: Item;
	/** The runs that use it: several of a multicore. */
	runs: User[];
}

export interface User {
	id: string;
	name: string;
}

export interface Shelf {
	key: string;
	name: string;
	kind: Schemas['Part']['kind'];
	lengthM: number | null;
	pieces: Piece[];
	owned: number;
	free: number;
	/** Pieces that runs use and nobody owns yet. */
	toGet: number;
	/** Whether it is part of the building. */
	installed: boolean;
	/** Every run that uses one of them, each once. */
	users: User[];
}

/** The whole cupboard in figures; what is built in is no stock. */
export interface Stock {
	owned: number;
	free: number;
	toGet: number;
	/** Runs that wait for something to be got. */
	waiting: User[];
}

const KINDS = ['lead', 'adapter', 'box', 'gear'];

/** By kind, name, and length. */
export function shelvesOf(rig: Rig): Shelf[] {
	const parts = new Map((rig.parts ?? []).map((part) => [part.id, part]));
	const users = new Map<string, User[]>();
	for (const run of rig.runs ?? []) {
		for (const piece of new Set(run.pieces ?? [])) {
			users.set(piece, [...(users.get(piece) ?? []), { id: run.id, name: run.name }]);
		}
	}
	const shelves = new Map<string, Shelf>();
	for (const item of rig.kit ?? []) {
		const part = parts.get(item.part);
		if (!part) continue;
		const key = `${item.part} ${item.length_m ?? ''} ${item.installed ? 'built in' : ''}`;
		const shelf = shelves.get(key) ?? {
			key,
			name: part.name,
			kind: part.kind,
			lengthM: item.length_m ?? null,
			pieces: [],
			owned: 0,
			free: 0,
			toGet: 0,
			installed: item.installed ?? false,
			users: []
		};
		const runs = users.get(item.id) ?? [];
		shelf.pieces.push({ item, runs });
		if (item.owned) shelf.owned += 1;
		else shelf.toGet += 1;
		if (item.owned && runs.length === 0 && !item.installed) shelf.free += 1;
		shelf.users.push(...runs.filter((run) => !shelf.users.some(({ id }) => id === run.id)));
		shelves.set(key, shelf);
	}
	return [...shelves.values()].sort(
		(a, b) =>
			KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) ||
			a.name.localeCompare(b.name) ||
			(a.lengthM ?? 0) - (b.lengthM ?? 0)
	);
}

export function stockOf(shelves: readonly Shelf[]): Stock {
	const stock: Stock = { owned: 0, free: 0, toGet: 0, waiting: [] };
	for (const shelf of shelves.filter(({ installed }) => !installed)) {
		stock.owned += shelf.owned;
		stock.free += shelf.free;
		stock.toGet += shelf.toGet;
		for (const { item, runs } of shelf.pieces) {
			if (item.owned) continue;
			stock.waiting.push(...runs.filter((run) => !stock.waiting.some(({ id }) => id === run.id)));
		}
	}
	return stock;
}

export const removeEdit = (item: Item): Schemas['Edit'] => ({
	label: `Kit: ${item.tag} taken out`,
	ops: [{ op: 'remove', kind: 'kit', id: item.id }]
});

export const ownedEdit = (item: Item, owned: boolean): Schemas['Edit'] => ({
	label: `Kit: ${item.tag} ${owned ? 'is ours' : 'still to get'}`,
	ops: [set('kit', item.id, 'owned', owned)]
});
