/** What is being typed and what the server makes of it; a late answer to an earlier text is dropped. */
import { Trouble, type Schemas } from '../api/client';
import { readInputList, readLines } from '../api/queries';

type Readings = Schemas['Readings'];

export const PAUSE_MS = 30;

/** How long to wait before a server whose queue was full is asked again: what its Retry-After says. */
export const ASK_AGAIN_MS = 2000;

/** The server computes more than it can queue just now, or the proxy in front of it finds none that answers. */
const LATER: readonly number[] = [502, 503, 504];

/** Whether pasted text is a table rather than lines: rows under headings, which have no figures in them, and no arrow. */
export function isTable(text: string): boolean {
	const [headings = '', ...rows] = text.trim().split('\n');
	const figures = /\d/.test(headings.replaceAll(/48 ?v|p48/gi, ''));
	return rows.length > 0 && /[,;\t]/.test(headings) && !figures && !/>|→|->|\bto\b|\binto\b/i.test(text);
}

export class LineEntry {
	text = $state('');
	readings = $state<Readings | null>(null);
	trouble = $state<string | null>(null);
	/** Whether `readings` belong to the text as it is now. */
	settled = $state(true);
	private timer: ReturnType<typeof setTimeout> | undefined;
	private asked: AbortController | null = null;

	/**
	 * `rigId`: which rig the text is read against. `saved`: when the edits made so far are saved; a line read before
	 * that would take the sockets, leads and names that they take.
	 */
	constructor(
		private readonly rigId: () => string | null,
		private readonly saved: () => Promise<void>
	) {}

	write(text: string): void {
		this.text = text;
		clearTimeout(this.timer);
		this.asked?.abort();
		if (!text.trim()) {
			this.readings = null;
			this.trouble = null;
			this.settled = true;
			return;
		}
		this.settled = false;
		this.timer = setTimeout(() => void this.read(), PAUSE_MS);
	}

	clear(): void {
		this.write('');
	}

	/** Asks now instead of after the pause; Enter must not act on an old answer. */
	async read(): Promise<void> {
		clearTimeout(this.timer);
		const rigId = this.rigId();
		const text = this.text;
		if (!rigId || !text.trim()) return;
		this.asked?.abort();
		const asked = (this.asked = new AbortController());
		try {
			await this.saved();
			if (asked.signal.aborted) return;
			const got = await (isTable(text)
				? readInputList(rigId, text, asked.signal)
				: readLines(rigId, text, asked.signal));
			if (asked.signal.aborted) return;
			this.readings = got;
			this.trouble = null;
		} catch (reason) {
			if (asked.signal.aborted) return;
			if (!(reason instanceof Trouble)) throw reason;
			this.readings = null;
			this.trouble = reason.message;
			if (LATER.includes(reason.status)) {
				// Nobody has to type again: the line is read as soon as there is room.
				this.timer = setTimeout(() => void this.read(), ASK_AGAIN_MS);
				return;
			}
		}
		this.settled = true;
	}
}
