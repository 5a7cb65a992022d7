/** Where contacts and inner nodes stand: columns from the source, lanes from the top, one row a contact. */
import type { Connector, Drawing, Piece, Span, Spot, StripSpace } from './strip-types';

export const PITCH = 25;
export const MATE_GAP = 27;
export const LANE_GAP = 46;
const NARROWEST_LEG = 58;

export const connectorsOf = (drawing: Drawing): Connector[] =>
	drawing.pieces.flatMap((piece) => [...piece.ins, ...piece.outs]);

export function at(spots: Map<string, Spot>, point: string): Spot {
	const spot = spots.get(point);
	if (!spot) throw new Error(`The drawing names ${point}, but no piece has it.`);
	return spot;
}

/** The share of the width a leg gets: longer leads a little more, so that length can be felt. */
export function weight(piece: Piece): number {
	if (piece.kind === 'lead') return 1 + Math.min(1.4, (piece.length_m ?? 1) / 12);
	return piece.kind === 'box' ? 1.3 : 0.9;
}

/** Below this width contacts and components would run into each other; the strip then scrolls. */
export function narrowest(drawing: Drawing, space: StripSpace): number {
	const last = Math.max(1, ...drawing.pieces.map((piece) => piece.column));
	return space.left + space.right + MATE_GAP * last + NARROWEST_LEG * (last - 1);
}

export function spansOf(drawing: Drawing, space: StripSpace): Map<string, Span> {
	const last = Math.max(1, ...drawing.pieces.map((piece) => piece.column));
	const weights = Array.from({ length: last - 1 }, (_, index) =>
		Math.max(0.5, ...drawing.pieces.filter((piece) => piece.column === index + 1).map(weight))
	);
	const total = weights.reduce((sum, each) => sum + each, 0) || 1;
	const room = space.width - space.left - space.right - MATE_GAP * last - NARROWEST_LEG * (last - 1);
	const spans = new Map<string, Span>();
	for (const piece of drawing.pieces) {
		if (piece.column === 0) spans.set(piece.owner, { left: 0, right: space.left });
		else if (piece.column === last)
			spans.set(piece.owner, { left: space.width - space.right, right: space.width });
		else {
			const before = weights.slice(0, piece.column - 1).reduce((sum, each) => sum + each, 0);
			const fixed = MATE_GAP * piece.column + NARROWEST_LEG * (piece.column - 1);
			const left = space.left + fixed + (room * before) / total;
			spans.set(piece.owner, {
				left,
				right: left + NARROWEST_LEG + (room * (weights[piece.column - 1] ?? 1)) / total
			});
		}
	}
	return spans;
}

export function placeContacts(drawing: Drawing, space: StripSpace): Map<string, Spot> {
	const spans = spansOf(drawing, space);
	const spots = new Map<string, Spot>();
	for (const piece of drawing.pieces) {
		const span = spans.get(piece.owner);
		if (!span) continue;
		const sides: [Connector[], number][] = [
			[piece.ins, span.left],
			[piece.outs, span.right]
		];
		for (const [connectors, x] of sides)
			for (const connector of connectors)
				connector.contacts.forEach((id, index) => {
					// Two-contact connectors leave the middle row free, so that sleeves meet screens.
					const row = connector.contacts.length === 2 ? index * 2 : index;
					spots.set(id, { x, y: space.top + connector.lane * (2 * PITCH + LANE_GAP) + row * PITCH });
				});
	}
	return spots;
}

/** Inner nodes of a box stand near its right side, level with what they join. */
export function placeInnerNodes(drawing: Drawing, spots: Map<string, Spot>, spans: Map<string, Span>): void {
	for (const link of drawing.links)
		for (const [inner, outer] of [
			[link.a, link.b],
			[link.b, link.a]
		] as const) {
			const span = spans.get(link.owner);
			if (spots.has(inner) || !spots.has(outer) || !span) continue;
			const joined = drawing.links
				.flatMap((other) => (other.a === inner ? [other.b] : other.b === inner ? [other.a] : []))
				.map((point) => spots.get(point)?.y)
				.filter((y) => y !== undefined);
			const y = joined.reduce((sum, each) => sum + each, 0) / joined.length;
			spots.set(inner, { x: span.right - 22, y });
		}
}
