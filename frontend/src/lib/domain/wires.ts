/** A run's conductors as small as a line of the list: the same geometry as its strip, without words. */
import { layOut } from './strip';
import { narrowest } from './strip-places';
import type { Drawing, PieceBox, StripLayout } from './strip-types';

/** Room for the outermost line, in the strip's pixels. */
const EDGE = 7;
/** Nothing is written between the lanes, so they stand closer than in the strip. */
const SPACE = { top: EDGE, left: EDGE, right: EDGE, laneGap: 40 };

export interface Wires {
	layout: StripLayout;
	width: number;
	height: number;
	/** What stands beside each other on the way, and what it reaches over in hundredths of the width. */
	pieces: { names: string[]; lengthM: number | null; left: number; width: number }[];
}

export function wiresOf(drawing: Drawing, wantedWidth: number): Wires {
	const width = Math.max(wantedWidth, narrowest(drawing, { ...SPACE, width: wantedWidth }));
	const layout = layOut(drawing, { ...SPACE, width });
	const foot = Math.max(EDGE, ...layout.contacts.map((contact) => contact.y));
	return {
		layout,
		width,
		height: foot + EDGE,
		pieces: besideEachOther(layout.pieces).map(([first, ...others]) => ({
			names: [first, ...others].map((piece) => piece.name),
			lengthM: first.lengthM,
			left: (first.left / width) * 100,
			width: ((first.right - first.left) / width) * 100
		}))
	};
}

/** Pieces of one column, from the left. */
function besideEachOther(pieces: readonly PieceBox[]): [PieceBox, ...PieceBox[]][] {
	const columns = new Map<number, [PieceBox, ...PieceBox[]]>();
	for (const piece of pieces) {
		const column = columns.get(piece.left);
		if (column) column.push(piece);
		else columns.set(piece.left, [piece]);
	}
	return [...columns.values()];
}
