/** Work the server does in its queue: how far each is, for the panel that shows it, and cancelling. */
import { SvelteMap } from 'svelte/reactivity';
import { answer, client, NOTHING_MORE, onLongWork, Trouble, type Schemas } from '../api/client';

type WorkState = Schemas['WorkState'];

const ASKED_EVERY_MS = 300;
/** What is done sooner than this is not worth a panel. */
const SHOWN_AFTER_MS = 500;

/** Work on a rig, or on the whole house. */
interface Work {
	rig_id: string | null;
	work_id: string;
}

/** The rig and the work in the address where the server tells how far it is. */
export function parseMonitor(monitor: string): Work {
	const [, rig, work] = /^\/api\/(?:rigs\/([^/]+)|house)\/work\/([^/]+)$/.exec(monitor) ?? [];
	if (work === undefined) throw new Error(`No address of work: ${monitor}`);
	return { rig_id: rig === undefined ? null : decodeURIComponent(rig), work_id: decodeURIComponent(work) };
}

const read = ({ rig_id, work_id }: Work) =>
	rig_id === null
		? client.GET('/api/house/work/{work_id}', { params: { path: { work_id } } })
		: client.GET('/api/rigs/{rig_id}/work/{work_id}', { params: { path: { rig_id, work_id } } });

const end = ({ rig_id, work_id }: Work) =>
	rig_id === null
		? client.DELETE('/api/house/work/{work_id}', { params: { path: { work_id } } })
		: client.DELETE('/api/rigs/{rig_id}/work/{work_id}', { params: { path: { rig_id, work_id } } });

const cancelled = (work: WorkState): Trouble =>
	new Trouble(0, {
		code: 'cancelled',
		message: `${work.words}: cancelled. ${work.when_cancelled}`,
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
				const work = await answer(read(path));
				if (work.state === 'done') return;
				if (work.state === 'cancelled') throw cancelled(work);
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
	async cancel(work: Work): Promise<void> {
		await answer(end(work)).catch(() => undefined);
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
