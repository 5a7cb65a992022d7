/** The wiring editor's board: contacts of a piece in two columns, inner nodes between them, joins as lines. */
import { contactName } from './names';
import type { Schemas } from '../api/client';
import { linePath } from './strip-lines';
import type { Spot } from './strip-types';
import { joinsOf, sideOf } from './wiring';

type Part = Schemas['Part'];

const PITCH = 34;
const GAP = 34;
const LEFT = 60;
const RIGHT = 400;
export const BOARD_WIDTH = 460;

/** The contacts of each connector form, as the server knows them. */
export type Contacts = Schemas['ContactList'];

export interface Board {
	width: number;
	height: number;
	spots: Map<string, Spot>;
	points: { id: string; name: string; label: string }[];
	connectors: { id: string; label: string; x: number; y: number; anchor: 'start' | 'end' }[];
	lines: { path: string; kind: string }[];
}

export function boardOf(part: Part, contacts: Contacts): Board {
	const contactsOf = (form: string) => contacts[form] ?? [];
	const spots = new Map<string, Spot>();
	const points: Board['points'] = [];
	const connectors: Board['connectors'] = [];
	const foot = { in: 20, out: 20 };
	for (const connector of part.connectors) {
		const side = connector.side === 'out' ? 'out' : 'in';
		const x = side === 'in' ? LEFT : RIGHT;
		connectors.push({
			id: connector.id,
			label: connector.label,
			x: side === 'in' ? 8 : BOARD_WIDTH - 8,
			y: foot[side] - 4,
			anchor: side === 'in' ? 'start' : 'end'
		});
		for (const [index, name] of contactsOf(connector.form).entries()) {
			const id = `${connector.id}.${name}`;
			spots.set(id, { x, y: foot[side] + 18 + index * PITCH });
			points.push({
				id,
				name: contactName(name),
				label: `${contactName(name)}: ${connector.label}, ${name}`
			});
		}
		foot[side] += contactsOf(connector.form).length * PITCH + GAP;
	}
	const joins = joinsOf(part);
	const inner = [...new Set(joins.flatMap((one) => [one.a, one.b]))].filter((point) => !point.includes('.'));
	inner.forEach((id, index) => {
		spots.set(id, { x: (LEFT + RIGHT) / 2, y: 38 + index * PITCH * 1.5 });
		points.push({ id, name: id.slice(0, 2), label: id });
	});
	const span = { left: LEFT, right: RIGHT };
	return {
		width: BOARD_WIDTH,
		height: Math.max(foot.in, foot.out, 40 + inner.length * PITCH * 1.5),
		spots,
		points,
		connectors,
		lines: joins.flatMap((one) => {
			const [a, b] = [spots.get(one.a), spots.get(one.b)];
			const kind =
				one.kind === 'wire' && sideOf(part, one.a) === sideOf(part, one.b) ? 'wire-link' : one.kind;
			return a && b ? [{ path: linePath(a, b, span), kind }] : [];
		})
	};
}
