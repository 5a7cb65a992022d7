/** The kit as a cupboard holds it: the same things of one length together, which are in use, which are free. */
import type { Schemas } from '../api/client';
import { set } from './ops';

type Rig = Schemas['Rig'];
type Item = NonNullable<Rig['kit']>[number];

export interface Piece {
	item: Item;
	/** The run that uses it, by name. */
	run: string | null;
}

export interface Shelf {
	key: string;
	name: string;
	kind: Schemas['Part']['kind'];
	lengthM: number | null;
	pieces: Piece[];
	owned: number;
	free: number;
}

const KINDS = ['lead', 'adapter', 'box', 'gear'];

/** By kind, name, and length. */
export function shelvesOf(rig: Rig): Shelf[] {
	const parts = new Map((rig.parts ?? []).map((part) => [part.id, part]));
	const user = new Map(
		(rig.runs ?? []).flatMap((run) => (run.pieces ?? []).map((piece) => [piece, run.name]))
	);
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
			free: 0
		};
		const run = user.get(item.id) ?? null;
		shelf.pieces.push({ item, run });
		if (item.owned) shelf.owned += 1;
		if (item.owned && !run && !item.installed) shelf.free += 1;
		shelves.set(key, shelf);
	}
	return [...shelves.values()].sort(
		(a, b) =>
			KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind) ||
			a.name.localeCompare(b.name) ||
			(a.lengthM ?? 0) - (b.lengthM ?? 0)
	);
}

export const removeEdit = (item: Item): Schemas['Edit'] => ({
	label: `Kit: ${item.tag} taken out`,
	ops: [{ op: 'remove', kind: 'kit', id: item.id }]
});

export const ownedEdit = (item: Item, owned: boolean): Schemas['Edit'] => ({
	label: `Kit: ${item.tag} ${owned ? 'is ours' : 'still to get'}`,
	ops: [set('kit', item.id, 'owned', owned)]
});
