/** What was done to a rig, day by day. */
import type { Schemas } from '../api/client';

type Line = Schemas['HistoryLine'];

export interface Day {
	key: string;
	/** The moment of its newest line, to be written as a date. */
	at: string;
	lines: Line[];
}

/** Lines as they come, newest first, parted where the local date changes. */
export function byDay(lines: readonly Line[]): Day[] {
	const days: Day[] = [];
	for (const line of lines) {
		const key = new Date(line.made_at).toDateString();
		const last = days.at(-1);
		if (last?.key === key) last.lines.push(line);
		else days.push({ key, at: line.made_at, lines: [line] });
	}
	return days;
}
