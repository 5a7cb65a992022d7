/** Lines typed in plain words: read back while they are typed, added when somebody says so; what was not understood
 * stays to be mended. */
import { Trouble } from '../api/client';

const PAUSE_MS = 120;

interface ReadLine {
	line: string;
	words: string;
	problem: string | null;
}

export class PlainLines<Reading extends { lines: ReadLine[] }> {
	text = $state('');
	reading = $state.raw<Reading | null>(null);
	trouble = $state('');
	private asking: AbortController | null = null;
	private timer: ReturnType<typeof setTimeout> | undefined;

	constructor(private readonly read: (text: string, signal: AbortSignal) => Promise<Reading>) {}

	get problems(): ReadLine[] {
		return (this.reading?.lines ?? []).filter(({ problem }) => problem);
	}

	write(next: string): void {
		this.text = next;
		clearTimeout(this.timer);
		this.asking?.abort();
		this.trouble = '';
		if (next.trim())
			this.timer = setTimeout(() => void this.ask((signal) => this.read(next, signal)), PAUSE_MS);
		else this.reading = null;
	}

	/** Reads something else than what was typed: the rows of a file, which then stand in the field. */
	async ask(send: (signal: AbortSignal) => Promise<Reading>): Promise<Reading | null> {
		const own = (this.asking = new AbortController());
		try {
			const reading = await send(own.signal);
			if (!own.signal.aborted) this.reading = reading;
			return own.signal.aborted ? null : reading;
		} catch (reason) {
			if (own.signal.aborted) return null;
			if (!(reason instanceof Trouble)) throw reason;
			this.reading = null;
			this.trouble = reason.problem.faults[0]?.sentence ?? reason.message;
			return null;
		}
	}

	/** What was not understood stays. */
	keepProblems(): void {
		this.write(this.problems.map(({ line }) => line).join('\n'));
	}
}
