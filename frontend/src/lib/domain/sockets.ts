/** Where a run goes, in words: "Mic 1", or "Desk: Mic 1" where the device is not said otherwise. */
import type { Drawing } from './strip-types';

/** So many sockets are named one by one. */
const NAMED = 2;

export function socketWords(drawing: Drawing, withDevice: boolean): string {
	const ends = drawing.pieces.filter((piece) => piece.kind === 'gear' && piece.column > 0);
	const labels = ends.flatMap((end) => end.ins.map((connector) => withoutForm(connector.label)));
	const named = labels.slice(0, NAMED).join(', ');
	const more = `${named} and ${labels.length - NAMED} more`;
	const sockets = labels.length > NAMED ? (inARow(labels) ?? more) : named;
	if (!withDevice || !ends[0]) return sockets;
	return `${ends[0].name}: ${sockets}`;
}

/** "Line 9–16" of eight sockets that follow each other by number; nothing of others. */
function inARow(labels: readonly string[]): string | undefined {
	const parts = labels.map((label) => /^(.*?)(\d+)$/.exec(label));
	const first = parts[0];
	const follow = parts.every(
		(part, at) => part !== null && part[1] === first?.[1] && Number(part[2]) === Number(first?.[2]) + at
	);
	return follow && first ? `${first[0]}\u2013${parts.at(-1)?.[2]}` : undefined;
}

/** "Mic 1" of "Mic 1, XLR": the wires beside it show what it is. */
const withoutForm = (label: string): string => label.split(', ')[0] ?? label;
