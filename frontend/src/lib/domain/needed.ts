/** What the runs of a typed line take from the kit and what would have to be got. */
import type { Schemas } from '../api/client';

type ReadRun = Schemas['ReadRun'];

export interface Needed {
	readonly fromKit: readonly string[];
	readonly toGet: readonly string[];
}

/** Each piece once, in its order; several of a kind with their count. A piece that several runs share counts once. */
export function needed(runs: readonly Pick<ReadRun, 'pieces'>[]): Needed {
	const pieces = new Map(runs.flatMap((run) => run.pieces).map((piece) => [piece.item, piece]));
	const fromKit: string[] = [];
	const toGet = new Map<string, number>();
	for (const piece of pieces.values()) {
		if (piece.in_kit) fromKit.push(piece.words);
		else toGet.set(piece.words, (toGet.get(piece.words) ?? 0) + 1);
	}
	return {
		fromKit,
		toGet: [...toGet].map(([words, count]) => (count > 1 ? `${count} × ${words}` : words))
	};
}
