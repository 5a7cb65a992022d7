/** Work the server does in its queue: how far each is, for the panel that shows it, and cancelling. */
import { SvelteMap } from 'svelte/reactivity';
import { answer, client, NOTHING_MORE, onLongWork, Trouble, type Schemas } from '../api/client';

type WorkState = Schemas['WorkState'];

const ASKED_EVERY_MS = 300;
/** What is done sooner than this is not worth a panel. */
const SHOWN_AFTER_MS = 500;

/** The rig and the work in the address where the server tells how far it is. */
export function parseMonitor(monitor: string): { rig_id: string; work_id: string } {
	const [, rig, work] = /^\/api\/rigs\/([^/]+)\/work\/([^/]+)$/.exec(monitor) ?? [];
	if (rig === undefined || work === undefined) throw new Error(`No address of work: ${monitor}`);
	return { rig_id: decodeURIComponent(rig), work_id: decodeURIComponent(work) };
}

const cancelled = (words: string): Trouble =>
	new Trouble(0, {
		code: 'cancelled',
		message: `${words}: cancelled. Nothing that was saved is lost.`,
		...NOTHING_MORE
	});

export class LongWorks {
	/** Shown, in the order in which they were asked for. */
	shown = $state<WorkState[]>([]);
	private readonly waiting = new SvelteMap<string, number>();

	/** Until it is done. Throws Trouble where it was cancelled, here or elsewhere. */
	async wait(monitor: string, signal: AbortSignal): Promise<void> {
		const path = parseMonitor(monitor);
		const since = performance.now();
		this.waiting.set(path.work_id, (this.waiting.get(path.work_id) ?? 0) + 1);
		try {
			for (;;) {
				const work = await answer(client.GET('/api/rigs/{rig_id}/work/{work_id}', { params: { path } }));
				if (work.state === 'done') return;
				if (work.state === 'cancelled') throw cancelled(work.words);
				if (performance.now() - since > SHOWN_AFTER_MS) this.show(work);
				await pause(ASKED_EVERY_MS, signal);
			}
		} finally {
			const others = (this.waiting.get(path.work_id) ?? 1) - 1;
			if (others > 0) this.waiting.set(path.work_id, others);
			else {
				this.waiting.delete(path.work_id);
				this.shown = this.shown.filter(({ id }) => id !== path.work_id);
				// Nobody here looks at it any longer, so the machine need not go on.
				if (signal.aborted) void this.cancel(path);
			}
		}
	}

	/** Ends it for everybody who waits for it. */
	async cancel(path: { rig_id: string; work_id: string }): Promise<void> {
		await answer(client.DELETE('/api/rigs/{rig_id}/work/{work_id}', { params: { path } })).catch(
			() => undefined
		);
	}

	private show(work: WorkState): void {
		const at = this.shown.findIndex(({ id }) => id === work.id);
		if (at < 0) this.shown.push(work);
		else this.shown[at] = work;
	}
}

/** The time, or until nobody wants it any longer: then it throws as fetch does. */
const pause = (ms: number, signal: AbortSignal): Promise<void> =>
	new Promise((resolve, reject) => {
		const stop = (): void => {
			clearTimeout(timer);
			reject(signal.reason instanceof Error ? signal.reason : new DOMException('Aborted', 'AbortError'));
		};
		const timer = setTimeout(() => {
			signal.removeEventListener('abort', stop);
			resolve();
		}, ms);
		if (signal.aborted) stop();
		else signal.addEventListener('abort', stop, { once: true });
	});

export const longWorks = new LongWorks();
onLongWork((monitor, signal) => longWorks.wait(monitor, signal));
