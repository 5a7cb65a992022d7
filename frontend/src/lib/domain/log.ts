/** Lines of the log by day, and the kinds there are. */
import type { Schemas } from '../api/client';

export type LogLine = Schemas['LogLine'];
export type LogKind = LogLine['kind'];

export const KINDS: readonly { id: LogKind; words: string }[] = [
	{ id: 'check', words: 'checks' },
	{ id: 'reading', words: 'readings' },
	{ id: 'note', words: 'notes' },
	{ id: 'test', words: 'tests' },
	{ id: 'step', words: 'steps' },
	{ id: 'working', words: 'who is where' },
	{ id: 'change', words: 'changes' }
];

/** As they come, the latest first, by the day on the wall where they are read. */
export function byDay(lines: readonly LogLine[]): { day: string; lines: LogLine[] }[] {
	const result: { day: string; lines: LogLine[] }[] = [];
	for (const line of lines) {
		const day = new Date(line.at).toDateString();
		const last = result.at(-1);
		if (last?.day === day) last.lines.push(line);
		else result.push({ day, lines: [line] });
	}
	return result;
}
