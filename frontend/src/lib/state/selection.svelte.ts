/** What is selected: the rig, a run of it, an input of that run, and how the runs stand in their list. */
import { SvelteSet } from 'svelte/reactivity';
import type { ScreenPlace } from '../domain/address';
import type { Order } from '../domain/groups';

const LAST_RIG = 'ruvak-rig';
/** So many runs leave room for one that is opened whole. */
const FEW_RUNS = 8;

export class Selection {
	rigId = $state<string | null>(null);
	runId = $state<string | null>(null);
	/** Of the selected run, the input whose figures are asked for. */
	inputKey = $state<string | null>(null);
	/** How the runs stand in their list. */
	order = $state<Order>('place');
	/** Whether the selected run's line is opened to all there is to it. */
	opened = $state(true);
	/** Runs to be changed together. */
	readonly marked = new SvelteSet<string>();
	/** The runs as they are listed now: the order in which keys walk them. */
	listed = $state.raw<readonly string[]>([]);
	/** The worst run, selected as long as none was picked. */
	worstId = $state<string | null>(null);
	/** Where keys brought the selection: the list brings the focus there. */
	walkedTo = $state<string | null>(null);

	/** `onleave`: called when another run or rig is selected, with the rig that was open before. */
	constructor(private readonly onleave: (before: string | null) => void) {}

	/** Shows what an address names. */
	goTo({ station, rig, run }: ScreenPlace): void {
		if (rig === null) return;
		if (this.rigId !== rig) this.open(rig);
		if (station !== 'runs') return;
		if (run !== null && run !== this.runId) this.select(run);
		else if (run !== null) return;
		else this.runId = null;
	}

	open(rigId: string): void {
		this.leave(rigId);
		try {
			localStorage.setItem(LAST_RIG, rigId);
		} catch {
			// Without storage the first rig opens next time.
		}
	}

	/** The rig is gone; the first in the list opens instead. */
	forget(): void {
		this.leave(null);
	}

	/** The rig that was open last in this browser. */
	lastRig(): string | null {
		try {
			return localStorage.getItem(LAST_RIG);
		} catch {
			return null;
		}
	}

	/** Selects a run and opens it. */
	select(runId: string): void {
		this.opened = true;
		this.move(runId);
	}

	/** The selected run; where none was picked yet, the one the list selects by itself. */
	get shownId(): string | null {
		return this.runId ?? this.worstId;
	}

	/** Whether the list opened the worst run by itself, among so many that they should be seen beside it. */
	get isBrief(): boolean {
		return this.runId === null && this.listed.length > FEW_RUNS;
	}

	close(): void {
		this.opened = false;
	}

	/** Opens a run's line, whole where it was open in brief; closes it where it is open. */
	toggle(runId: string, selected: boolean): void {
		this.opened = !(selected && this.opened && !this.isBrief);
		this.move(runId);
	}

	/** Selects the next or previous run in the list; an opened line stays opened. */
	walk(step: 1 | -1): void {
		const next = this.listed[this.listed.indexOf(this.shownId ?? '') + step];
		if (next === undefined) return;
		this.move(next);
		this.walkedTo = next;
	}

	/** Marks a run or unmarks it; `through`: with all between it and the selected one. */
	mark(runId: string, through: boolean): void {
		const [from, to] = [this.listed.indexOf(this.shownId ?? runId), this.listed.indexOf(runId)];
		if (through && from >= 0 && to >= 0) {
			for (const id of this.listed.slice(Math.min(from, to), Math.max(from, to) + 1)) this.marked.add(id);
		} else if (!this.marked.delete(runId)) this.marked.add(runId);
	}

	private move(runId: string): void {
		if (this.runId !== runId) {
			this.inputKey = null;
			this.onleave(this.rigId);
		}
		this.runId = runId;
	}

	private leave(next: string | null): void {
		const before = this.rigId;
		this.rigId = next;
		this.runId = null;
		this.inputKey = null;
		this.marked.clear();
		this.onleave(before);
	}
}
