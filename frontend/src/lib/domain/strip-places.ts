/** Where contacts and inner nodes stand: columns from the source, lanes from the top, one row a contact. */
import type { Connector, Drawing, Piece, Span, Spot, StripSpace } from './strip-types';

export const PITCH = 25;
export const MATE_GAP = 27;
export const LANE_GAP = 88;
const NARROWEST_LEG = 58;
const APART = 11;
const NAME = 40;

export const connectorsOf = (drawing: Drawing): Connector[] =>
	drawing.pieces.flatMap((piece) => [...piece.ins, ...piece.outs]);

export function at(spots: Map<string, Spot>, point: string): Spot {
	const spot = spots.get(point);
	if (!spot) throw new Error(`The drawing names ${point}, but no piece has it.`);
	return spot;
}

/** The share of the width a piece gets: longer leads a little more, so that length can be felt. */
export function weight(piece: Piece): number {
	if (piece.kind === 'lead') return 1 + Math.min(1.4, (piece.length_m ?? 1) / 12);
	return piece.kind === 'box' ? 1.3 : 0.9;
}

/** Columns of pieces: the gear stands in front of the first and behind the last. */
const pieceColumns = (drawing: Drawing): number =>
	Math.max(0, ...drawing.pieces.filter((piece) => piece.kind !== 'gear').map((piece) => piece.column));

/** Below this width contacts and components would run into each other; the strip then scrolls. */
export function narrowest(drawing: Drawing, space: StripSpace): number {
	const columns = pieceColumns(drawing);
	return space.left + space.right + MATE_GAP * (columns + 1) + NARROWEST_LEG * columns;
}

/** By piece id. */
export function spansOf(drawing: Drawing, space: StripSpace): Map<string, Span> {
	const columns = pieceColumns(drawing);
	const weights = Array.from({ length: columns }, (_, index) =>
		Math.max(
			0.5,
			...drawing.pieces.filter((piece) => piece.kind !== 'gear' && piece.column === index + 1).map(weight)
		)
	);
	const total = weights.reduce((sum, each) => sum + each, 0) || 1;
	const room = space.width - space.left - space.right - MATE_GAP * (columns + 1) - NARROWEST_LEG * columns;
	const spans = new Map<string, Span>();
	for (const piece of drawing.pieces) {
		if (piece.kind === 'gear') {
			const source = piece.column === 0;
			spans.set(piece.id, {
				left: source ? 0 : space.width - space.right,
				right: source ? space.left : space.width
			});
			continue;
		}
		const before = weights.slice(0, piece.column - 1).reduce((sum, each) => sum + each, 0);
		const fixed = MATE_GAP * piece.column + NARROWEST_LEG * (piece.column - 1);
		const left = space.left + fixed + (room * before) / total;
		spans.set(piece.id, {
			left,
			right: left + NARROWEST_LEG + (room * (weights[piece.column - 1] ?? 1)) / total
		});
	}
	return spans;
}

/** Row of each contact. Two contacts leave the middle row free, so that sleeves meet screens; loudspeakers have none. */
export const rowOf = (connector: Connector, index: number): number =>
	connector.contacts.length === 2 && !connector.form.startsWith('loudspeaker') ? index * 2 : index;

const CHANNEL_CONTACTS = 3;

/** A D-type's channels each stand in the lane of the plug they come out at, where there are so many lanes. */
function spreads(connector: Connector, lanes: number): boolean {
	const channels = connector.contacts.length / CHANNEL_CONTACTS;
	return connector.form.startsWith('dsub25') && channels > 1 && connector.lane + channels <= lanes;
}

type LaneSpace = Pick<StripSpace, 'top' | 'laneGap'>;

/** Where each lane begins, by its number, and how many rows it has. */
export function lanesOf(
	drawing: Drawing,
	{ top, laneGap = LANE_GAP }: LaneSpace
): { top: number; rows: number }[] {
	const rows: number[] = [];
	const count = laneCount(drawing);
	for (const connector of connectorsOf(drawing)) {
		const contacts = spreads(connector, count) ? CHANNEL_CONTACTS : connector.contacts.length;
		const own = 1 + rowOf(connector, contacts - 1);
		rows[connector.lane] = Math.max(rows[connector.lane] ?? 0, own);
	}
	// A second device at one end has its name above its first socket.
	const named = new Set(
		drawing.pieces
			.filter((piece) => piece.kind === 'gear')
			.map((piece) => Math.min(...[...piece.ins, ...piece.outs].map((one) => one.lane)))
	);
	let y = top;
	return Array.from(rows, (count, index) => {
		// A lane nobody stands in takes no room.
		const lane = { top: y, rows: count ?? 0 };
		if (count) y += (count - 1) * PITCH + laneGap + (laneGap === LANE_GAP && named.has(index + 1) ? NAME : 0);
		return lane;
	});
}

const laneCount = (drawing: Drawing): number =>
	1 + Math.max(-1, ...connectorsOf(drawing).map((connector) => connector.lane));

export function placeContacts(drawing: Drawing, space: StripSpace): Map<string, Spot> {
	const spans = spansOf(drawing, space);
	const lanes = lanesOf(drawing, space);
	const topOf = (lane: number): number => lanes[lane]?.top ?? space.top;
	const spots = new Map<string, Spot>();
	for (const piece of drawing.pieces) {
		const span = spans.get(piece.id);
		if (!span) continue;
		const sides: [Connector[], number][] = [
			[piece.ins, span.left],
			[piece.outs, span.right]
		];
		for (const [connectors, x] of sides)
			for (const connector of connectors)
				connector.contacts.forEach((id, index) => {
					const channel = spreads(connector, lanes.length) ? Math.floor(index / CHANNEL_CONTACTS) : 0;
					const row = rowOf(connector, index) - channel * CHANNEL_CONTACTS;
					spots.set(id, { x, y: topOf(connector.lane + channel) + row * PITCH });
				});
	}
	return spots;
}

/** Inner nodes of a piece stand inside it, level with what they join, never on top of another point. */
export function placeInnerNodes(drawing: Drawing, spots: Map<string, Spot>, spans: Map<string, Span>): void {
	for (const piece of drawing.pieces) {
		if (piece.kind === 'gear') continue;
		const pairs = [
			...drawing.links.filter((link) => link.owner === piece.id).map((link) => [link.a, link.b]),
			...drawing.elements.filter((one) => one.owner === piece.id).map((one) => one.points)
		];
		const inner = [...new Set(pairs.flat())].filter((point) => !spots.has(point));
		const span = spans.get(piece.id) ?? { left: 0, right: 0 };
		const own = [...piece.ins, ...piece.outs].flatMap((one) => one.contacts.map((id) => at(spots, id).y));
		inner.forEach((point, index) => {
			const near = pairs
				.filter((pair) => pair.includes(point))
				.flat()
				.flatMap((other) => spots.get(other)?.y ?? []);
			const levels = near.length ? near : own;
			const y = levels.reduce((sum, each) => sum + each, 0) / (levels.length || 1);
			const room = Math.max(0, span.right - span.left - 44);
			const x = span.right - 22 - (room * index) / Math.max(4, inner.length);
			spots.set(point, apart(spots, { x, y: y + 4 }));
		});
	}
}

/** The same spot, moved down until nothing else is near. */
function apart(spots: Map<string, Spot>, wanted: Spot): Spot {
	const taken = [...spots.values()];
	let { x, y } = wanted;
	while (taken.some((spot) => Math.abs(spot.x - x) < APART && Math.abs(spot.y - y) < APART)) {
		y += APART / 2;
		x -= 1;
	}
	return { x, y };
}
