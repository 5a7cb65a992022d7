/**
 * Where everything on a strip stands. Pure geometry: every link of the trace becomes one line between the very
 * centres of its two contacts, so what is joined on screen is what is joined in the metal, and nothing else.
 */
import type { Schemas } from '../api/client';

type Drawing = Schemas['RunDrawing'];
type Piece = Schemas['DrawnPiece'];
type Connector = Schemas['DrawnConnector'];

export const CONTACT_RADIUS = 8;
const PITCH = 25;
const LANE_GAP = 46;
const MATE_GAP = 27;
const COIL = 14;
const NARROWEST_LEG = 58;

export interface Spot {
	x: number;
	y: number;
}

export interface ContactMark extends Spot {
	id: string;
	name: string;
	look: Look;
	open: boolean;
}

/** How a conductor is drawn, by what it carries from the source or brings to the destination. */
export type Look = 'left' | 'right' | 'hot' | 'cold' | 'screen' | 'idle';

export interface Line {
	path: string;
	look: Look;
	kind: 'metal' | 'lead-in';
	owner: string;
}

export interface Capsule {
	x: number;
	y: number;
	width: number;
	height: number;
	label: string;
}

export interface Component {
	type: 'resistor' | 'capacitor' | 'transformer';
	at: Spot;
	/** Degrees, so that a component lies along its line. */
	turn: number;
	label: string;
	owner: string;
}

export interface LegBox {
	owner: string;
	name: string;
	kind: Piece['kind'];
	lengthM: number | null;
	left: number;
	right: number;
	top: number;
	bottom: number;
	/** Outlines of the screens around their cores. */
	braids: { x: number; y: number; width: number; height: number }[];
}

export interface EndBox {
	owner: string;
	name: string;
	side: 'source' | 'destination';
	connectors: { end: string; label: string; x: number; top: number; hot: Spot; cold: Spot; screen: Spot }[];
}

/** What a conductor carries, written on it where it leaves and where it arrives. */
export interface Letter extends Spot {
	words: string;
	look: Look;
}

export interface StripLayout {
	width: number;
	height: number;
	contacts: ContactMark[];
	lines: Line[];
	capsules: Capsule[];
	components: Component[];
	legs: LegBox[];
	ends: EndBox[];
	letters: Letter[];
}

export interface StripSpace {
	width: number;
	/** Room above the first lane for tapes and labels. */
	top: number;
	/** Room beside the end contacts for what stands there. */
	left: number;
	right: number;
}

export function layOut(drawing: Drawing, given: StripSpace): StripLayout {
	const space = { ...given, width: Math.max(given.width, narrowest(drawing, given)) };
	const spots = placeContacts(drawing, space);
	const looks = looksOf(drawing);
	const look = (point: string): Look => looks.get(point) ?? 'idle';
	const spans = spansOf(drawing, space);
	placeInnerNodes(drawing, spots, spans);
	const lanes = 1 + Math.max(0, ...connectorsOf(drawing).map((connector) => connector.lane));
	const linked = new Set(drawing.links.flatMap((link) => [link.a, link.b]));
	for (const element of drawing.elements) for (const point of element.points) linked.add(point);
	const { components, leadIns } = componentsOf(drawing, spots, spans, look);
	return {
		width: space.width,
		height: space.top + lanes * 2 * PITCH + (lanes - 1) * LANE_GAP + 34,
		contacts: connectorsOf(drawing).flatMap((connector) =>
			connector.contacts.map((id) => ({
				...at(spots, id),
				id,
				name: id.slice(id.lastIndexOf('.') + 1).slice(0, 2),
				look: look(id),
				open: !linked.has(id)
			}))
		),
		lines: [
			...drawing.links.map((link) => ({
				path: linePath(at(spots, link.a), at(spots, link.b), spans.get(link.owner)),
				look: look(link.a),
				kind: 'metal' as const,
				owner: link.owner
			})),
			...leadIns
		],
		capsules: capsulesOf(drawing, spots),
		components,
		legs: legsOf(drawing, spots, spans),
		ends: endsOf(drawing, spots),
		letters: lettersOf(drawing, spots)
	};
}

interface Span {
	left: number;
	right: number;
}

const connectorsOf = (drawing: Drawing): Connector[] =>
	drawing.pieces.flatMap((piece) => [...piece.ins, ...piece.outs]);

function at(spots: Map<string, Spot>, point: string): Spot {
	const spot = spots.get(point);
	if (!spot) throw new Error(`The drawing names ${point}, but no piece has it.`);
	return spot;
}

/** The share of the width a leg gets: longer leads a little more, so that length can be felt. */
function weight(piece: Piece): number {
	if (piece.kind === 'lead') return 1 + Math.min(1.4, (piece.length_m ?? 1) / 12);
	return piece.kind === 'box' ? 1.3 : 0.9;
}

/** Below this width contacts and components would run into each other; the strip then scrolls. */
function narrowest(drawing: Drawing, space: StripSpace): number {
	const last = Math.max(1, ...drawing.pieces.map((piece) => piece.column));
	return space.left + space.right + MATE_GAP * last + NARROWEST_LEG * (last - 1);
}

function spansOf(drawing: Drawing, space: StripSpace): Map<string, Span> {
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

function placeContacts(drawing: Drawing, space: StripSpace): Map<string, Spot> {
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
function placeInnerNodes(drawing: Drawing, spots: Map<string, Spot>, spans: Map<string, Span>): void {
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

function looksOf(drawing: Drawing): Map<string, Look> {
	const looks = new Map<string, Look>();
	for (const conductor of drawing.conductors) {
		const look = lookOf(conductor);
		for (const point of conductor.points) looks.set(point, look);
	}
	return looks;
}

function lookOf(conductor: Schemas['DrawnConductor']): Look {
	const { carries, arrives } = conductor;
	if (carries.includes('return')) return 'screen';
	if (carries.includes('L')) return 'left';
	if (carries.includes('R')) return 'right';
	if (arrives.includes('screen')) return 'screen';
	if (arrives.includes('hot')) return 'hot';
	if (arrives.includes('cold')) return 'cold';
	return 'idle';
}

/** From centre to centre: straight on one level, an S between levels, a bracket between contacts of one side. */
function linePath(a: Spot, b: Spot, span: Span | undefined): string {
	const start = `M${round(a.x)} ${round(a.y)}`;
	const end = `${round(b.x)} ${round(b.y)}`;
	if (a.y === b.y) return `${start} L${end}`;
	if (a.x === b.x) {
		const inward = span && Math.abs(a.x - span.right) < 1 ? -1 : 1;
		const x = round(a.x + inward * (20 + Math.abs(a.y - b.y) / 6));
		return `${start} C${x} ${round(a.y)} ${x} ${round(b.y)} ${end}`;
	}
	const middle = round((a.x + b.x) / 2);
	return `${start} C${middle} ${round(a.y)} ${middle} ${round(b.y)} ${end}`;
}

const round = (value: number): number => Math.round(value * 10) / 10;

function componentsOf(
	drawing: Drawing,
	spots: Map<string, Spot>,
	spans: Map<string, Span>,
	look: (point: string) => Look
): { components: Component[]; leadIns: Line[] } {
	const components: Component[] = [];
	const leadIns: Line[] = [];
	const leadIn = (point: string, to: Spot, owner: string): void => {
		leadIns.push({
			path: linePath(at(spots, point), to, spans.get(owner)),
			look: look(point),
			kind: 'lead-in',
			owner
		});
	};
	drawing.elements.forEach((element) => {
		const [first, second, third, fourth] = element.points.map((point) => at(spots, point));
		const names = element.points;
		if (!first || !second) return;
		const span = spans.get(element.owner);
		if (element.type === 'transformer' && third && fourth && span) {
			const centre = { x: (span.left + span.right) / 2, y: (third.y + fourth.y) / 2 };
			const corners = [-1, 1].flatMap((x) =>
				[-1, 1].map((y) => ({ x: centre.x + x * 9, y: centre.y + y * COIL }))
			);
			corners.forEach((corner, index) => leadIn(names[index] ?? '', corner, element.owner));
			components.push({
				type: element.type,
				at: centre,
				turn: 0,
				label: element.label,
				owner: element.owner
			});
			return;
		}
		const centre = { x: (first.x + second.x) / 2, y: (first.y + second.y) / 2 };
		const angle = Math.atan2(second.y - first.y, second.x - first.x);
		const offset = { x: 13 * Math.cos(angle), y: 13 * Math.sin(angle) };
		const ends = [
			{ x: centre.x - offset.x, y: centre.y - offset.y },
			{ x: centre.x + offset.x, y: centre.y + offset.y }
		];
		ends.forEach((end, index) => {
			const from = at(spots, names[index] ?? '');
			const path = `M${round(from.x)} ${round(from.y)} L${round(end.x)} ${round(end.y)}`;
			leadIns.push({ path, look: look(names[index] ?? ''), kind: 'lead-in', owner: element.owner });
		});
		const turn = (angle * 180) / Math.PI;
		components.push({ type: element.type, at: centre, turn, label: element.label, owner: element.owner });
	});
	return { components, leadIns };
}

/** One capsule around each mated pair, or around a connector that nothing is plugged into. */
function capsulesOf(drawing: Drawing, spots: Map<string, Spot>): Capsule[] {
	const taken = new Set<string>();
	const capsules: Capsule[] = [];
	const byContact = new Map(
		connectorsOf(drawing).flatMap((one) => one.contacts.map((id) => [id, one] as const))
	);
	for (const connector of connectorsOf(drawing)) {
		if (taken.has(connector.end)) continue;
		const mate = drawing.links
			.filter((link) => link.kind === 'mate')
			.flatMap((link) =>
				byContact.get(link.a) === connector ? [link.b] : byContact.get(link.b) === connector ? [link.a] : []
			)
			.map((id) => byContact.get(id))
			.find((found) => found !== undefined);
		const both = mate ? [connector, mate] : [connector];
		both.forEach((one) => taken.add(one.end));
		const marks = both.flatMap((one) => one.contacts.map((id) => at(spots, id)));
		const [left, right] = [Math.min(...marks.map((s) => s.x)), Math.max(...marks.map((s) => s.x))];
		const [top, bottom] = [Math.min(...marks.map((s) => s.y)), Math.max(...marks.map((s) => s.y))];
		capsules.push({
			x: left - 13,
			y: top - 13,
			width: right - left + 26,
			height: bottom - top + 26,
			label: connector.form.startsWith('xlr') ? 'XLR' : formWords(connector.form)
		});
	}
	return capsules;
}

function formWords(form: string): string {
	if (form.includes('635')) return '6.35 mm';
	return form.includes('35') ? '3.5 mm' : 'RCA';
}

function legsOf(drawing: Drawing, spots: Map<string, Spot>, spans: Map<string, Span>): LegBox[] {
	return drawing.pieces
		.filter((piece) => piece.kind !== 'gear')
		.map((piece) => {
			const span = spans.get(piece.owner) ?? { left: 0, right: 0 };
			const own = [...piece.ins, ...piece.outs].flatMap((one) => one.contacts.map((id) => at(spots, id)));
			const screens = drawing.links.filter((link) => link.owner === piece.owner && link.kind === 'screen');
			return {
				owner: piece.owner,
				name: piece.name,
				kind: piece.kind,
				lengthM: piece.length_m ?? null,
				left: span.left,
				right: span.right,
				top: Math.min(...own.map((spot) => spot.y)),
				bottom: Math.max(...own.map((spot) => spot.y)),
				braids: screens.map((link) => {
					// The braid lies around the cores, which stand above their screen at its far end.
					const y = at(spots, link.b).y;
					return {
						x: span.left + 22,
						y: y - 2 * PITCH - 10,
						width: Math.max(4, span.right - span.left - 44),
						height: 2 * PITCH + 20
					};
				})
			};
		});
}

function endsOf(drawing: Drawing, spots: Map<string, Spot>): EndBox[] {
	return drawing.pieces
		.filter((piece) => piece.kind === 'gear')
		.map((piece) => {
			const side = piece.outs.length > 0 ? ('source' as const) : ('destination' as const);
			const connectors = (side === 'source' ? piece.outs : piece.ins).map((one) => {
				const marks = one.contacts.map((id) => at(spots, id));
				const [hot, cold, screen] = [marks[0], marks.at(1), marks.at(-1)];
				const nowhere = { x: 0, y: 0 };
				return {
					end: one.end,
					label: one.label,
					x: hot?.x ?? 0,
					top: hot?.y ?? 0,
					hot: hot ?? nowhere,
					cold: cold ?? nowhere,
					screen: screen ?? nowhere
				};
			});
			return { owner: piece.owner, name: piece.name, side, connectors };
		});
}

function lettersOf(drawing: Drawing, spots: Map<string, Spot>): Letter[] {
	return drawing.pieces
		.filter((piece) => piece.kind === 'gear')
		.flatMap((piece) => [...piece.outs, ...piece.ins])
		.flatMap((connector) => connector.contacts)
		.flatMap((id) => {
			const conductor = drawing.conductors.find((one) => one.points.includes(id));
			const words = conductor?.carries.filter((word) => word !== 'return').join('+') ?? '';
			const leaving = drawing.pieces.some((piece) => piece.outs.some((one) => one.contacts.includes(id)));
			const spot = at(spots, id);
			const x = leaving ? spot.x - 22 : spot.x - MATE_GAP - 26;
			return conductor && words ? [{ x, y: spot.y, words, look: lookOf(conductor) }] : [];
		});
}
