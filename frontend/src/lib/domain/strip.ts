/**
 * Where everything on a strip stands. Pure geometry: every link of the trace becomes one line between the very
 * centres of its two contacts, so what is joined on screen is what is joined in the metal, and nothing else.
 */
import { contactName } from './names';
import type { Schemas } from '../api/client';
import { componentsOf, linePath } from './strip-lines';
import {
	at,
	connectorsOf,
	MATE_GAP,
	narrowest,
	PITCH,
	placeContacts,
	placeInnerNodes,
	spansOf
} from './strip-places';
import type {
	Capsule,
	Drawing,
	Ear,
	EndBox,
	PieceBox,
	Letter,
	Look,
	Span,
	Spot,
	StripLayout,
	StripSpace
} from './strip-types';

export const CONTACT_RADIUS = 8;
/** In front of the name of a channel that leaves by a balanced output's cold contact. */
const COLD = '\u2212';

export function layOut(drawing: Drawing, given: StripSpace): StripLayout {
	const space = { ...given, width: Math.max(given.width, narrowest(drawing, given)) };
	const spots = placeContacts(drawing, space);
	const looks = looksOf(drawing);
	const look = (point: string): Look => looks.get(point) ?? 'idle';
	const spans = spansOf(drawing, space);
	placeInnerNodes(drawing, spots, spans);
	const foot = Math.max(space.top, ...[...spots.values()].map((spot) => spot.y));
	const linked = new Set(drawing.links.flatMap((link) => [link.a, link.b]));
	for (const element of drawing.elements) for (const point of element.points) linked.add(point);
	const { components, leadIns } = componentsOf(drawing, spots, spans, look);
	return {
		width: space.width,
		height: foot + 36,
		contacts: connectorsOf(drawing).flatMap((connector) =>
			connector.contacts.map((id) => ({
				...at(spots, id),
				id,
				name: contactName(id.slice(id.lastIndexOf('.') + 1)),
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
		pieces: piecesOf(drawing, spots, spans),
		ends: endsOf(drawing, spots),
		ears: earsOf(drawing, spots),
		letters: lettersOf(drawing, spots)
	};
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
	if (carries.some((word) => word.startsWith(COLD))) return 'cold';
	if (carries.includes('L')) return 'left';
	if (carries.includes('R')) return 'right';
	if (carries.length > 0) return 'hot';
	if (arrives.includes('screen')) return 'screen';
	if (arrives.includes('hot')) return 'hot';
	if (arrives.includes('cold')) return 'cold';
	return 'idle';
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
			label: formWords(connector.form)
		});
	}
	return capsules;
}

const FORM_WORDS: readonly (readonly [string, string])[] = [
	['xlr5', 'XLR, 5 pins'],
	['xlr', 'XLR'],
	['635', '6.35 mm'],
	['35', '3.5 mm'],
	['combo', 'combo'],
	['modular8', 'network'],
	['loudspeaker', 'loudspeaker'],
	['usb', 'USB'],
	['hdmi', 'HDMI'],
	['din5', 'DIN, 5 pins'],
	['optical', 'optical'],
	['dsub25', 'D-type']
];

const formWords = (form: string): string => FORM_WORDS.find(([start]) => form.includes(start))?.[1] ?? 'RCA';

function piecesOf(drawing: Drawing, spots: Map<string, Spot>, spans: Map<string, Span>): PieceBox[] {
	return drawing.pieces
		.filter((piece) => piece.kind !== 'gear')
		.map((piece) => {
			const span = spans.get(piece.id) ?? { left: 0, right: 0 };
			const own = [...piece.ins, ...piece.outs].flatMap((one) => one.contacts.map((id) => at(spots, id)));
			const screens = drawing.links.filter((link) => link.owner === piece.owner && link.kind === 'screen');
			return {
				owner: piece.owner,
				name: piece.name,
				kind: piece.kind,
				installed: piece.installed,
				lengthM: piece.length_m ?? null,
				left: span.left,
				right: span.right,
				top: Math.min(...own.map((spot) => spot.y)),
				bottom: Math.max(...own.map((spot) => spot.y)),
				braids: screens.map((link) => {
					// The braid lies around the cores, which stand above their screen at its far end.
					const foot = Math.max(at(spots, link.a).y, at(spots, link.b).y);
					const top = Math.max(foot - 2 * PITCH, Math.min(...own.map((spot) => spot.y)));
					return {
						x: span.left + 22,
						y: top - 10,
						width: Math.max(4, span.right - span.left - 44),
						height: foot - top + 20
					};
				})
			};
		});
}

function endsOf(drawing: Drawing, spots: Map<string, Spot>): EndBox[] {
	return drawing.pieces
		.filter((piece) => piece.kind === 'gear')
		.map((piece) => {
			const side = piece.column === 0 ? ('source' as const) : ('destination' as const);
			const connectors = (side === 'source' ? piece.outs : piece.ins).map((one) => {
				const first = one.contacts[0] === undefined ? { x: 0, y: 0 } : at(spots, one.contacts[0]);
				return { end: one.end, label: one.label, x: first.x, top: first.y };
			});
			const top = Math.min(...connectors.map((one) => one.top));
			return { id: piece.id, owner: piece.owner, name: piece.name, side, top, connectors };
		});
}

const earsOf = (drawing: Drawing, spots: Map<string, Spot>): Ear[] =>
	drawing.listening.map((one) => ({
		gear: one.gear,
		input: one.input,
		hot: at(spots, one.hot),
		cold: one.cold === null || one.cold === undefined ? null : at(spots, one.cold)
	}));

function lettersOf(drawing: Drawing, spots: Map<string, Spot>): Letter[] {
	return drawing.pieces
		.filter((piece) => piece.kind === 'gear')
		.flatMap((piece) => [...piece.outs, ...piece.ins])
		.flatMap((connector) => connector.contacts)
		.flatMap((id) => {
			const conductor = drawing.conductors.find((one) => one.points.includes(id));
			const words =
				conductor?.carries.filter((word) => word !== 'return' && !word.startsWith(COLD)).join('+') ?? '';
			const leaving = drawing.pieces.some((piece) => piece.outs.some((one) => one.contacts.includes(id)));
			const spot = at(spots, id);
			const x = leaving ? spot.x - 22 : spot.x - MATE_GAP - 26;
			return conductor && words ? [{ x, y: spot.y, words, look: lookOf(conductor) }] : [];
		});
}
