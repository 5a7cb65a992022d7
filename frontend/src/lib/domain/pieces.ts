/** A run's pieces as a list that can be changed: swapped, inserted, taken out, moved. Pure; nothing here is saved. */
import type { Schemas } from '../api/client';
import { newKitItem } from './records';

type KitItem = Schemas['KitItem'];

/** A piece that could be used, as the kit item it is or would become. */
export const itemOf = (choice: Schemas['PieceChoice']): KitItem =>
	newKitItem({
		id: choice.item,
		tag: choice.tag,
		part: choice.part,
		length_m: choice.length_m ?? null,
		owned: choice.in_kit
	});

export const piecesOf = (rig: Schemas['Rig'], runId: string): KitItem[] => {
	const kit = new Map((rig.kit ?? []).map((item) => [item.id, item]));
	const run = (rig.runs ?? []).find((one) => one.id === runId);
	return (run?.pieces ?? []).flatMap((id) => kit.get(id) ?? []);
};

export const swapped = (pieces: readonly KitItem[], at: number, item: KitItem): KitItem[] =>
	pieces.map((piece, index) => (index === at ? item : piece));

export const inserted = (pieces: readonly KitItem[], at: number, item: KitItem): KitItem[] => [
	...pieces.slice(0, at),
	item,
	...pieces.slice(at)
];

export const without = (pieces: readonly KitItem[], at: number): KitItem[] =>
	pieces.filter((_, index) => index !== at);

/** One place nearer the source (-1) or the destination (+1). */
export function moved(pieces: readonly KitItem[], at: number, step: -1 | 1): KitItem[] {
	const piece = pieces[at];
	return piece === undefined ? [...pieces] : inserted(without(pieces, at), at + step, piece);
}
