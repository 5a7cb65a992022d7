/** Where a run goes, in words: "Mic 1", or "Desk: Mic 1" where the device is not said otherwise. */
import type { Drawing } from './strip-types';

/** So many sockets are named one by one. */
const NAMED = 2;

export function socketWords(drawing: Drawing, withDevice: boolean): string {
	const ends = drawing.pieces.filter((piece) => piece.kind === 'gear' && piece.column > 0);
	const labels = ends.flatMap((end) => end.ins.map((connector) => withoutForm(connector.label)));
	const named = labels.slice(0, NAMED).join(', ');
	const sockets = labels.length > NAMED ? `${named} and ${labels.length - NAMED} more` : named;
	if (!withDevice || !ends[0]) return sockets;
	return `${ends[0].name}: ${sockets}`;
}

/** "Mic 1" of "Mic 1, XLR": the wires beside it show what it is. */
const withoutForm = (label: string): string => label.split(', ')[0] ?? label;
