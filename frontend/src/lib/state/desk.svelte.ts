/** What is open on the desk: the rig, the selected run, the remedy being looked at, and how saving goes. */
import type { QueryClient } from '@tanstack/svelte-query';
import { getContext, setContext } from 'svelte';
import { OFFLINE, Trouble, type Schemas } from '../api/client';
import { redoEdit, rigQuery, saveEdit, undoEdit } from '../api/queries';
import { fetchRecord, fetchVersion, viewOf, type RigView } from '../api/rig-view';
import type { Place } from '../domain/address';
import { afterEdit } from '../domain/changed';
import { newId } from '../domain/ids';

type RigState = Schemas['RigState'];
type Edit = Schemas['Edit'];
type Outcome = Schemas['EditOutcome'];

/** An edit on its way: the rig, what it was made on, and its own name, so that sent again it is not made twice. */
interface Sent {
	rig: string | null;
	edit: Edit;
	base: string | null;
	id: string;
}

/** Something looked at, not made: what it is called, the run as it would be, the edit that makes it so. */
export type Look = Pick<Schemas['Remedy'], 'id' | 'title' | 'after' | 'edit'>;

export type Saving = 'saved' | 'saving' | 'unsaved';

const LAST_RIG = 'ruvak-rig';
const UNSENT = 'ruvak-unsent';

export class Desk {
	rigId = $state<string | null>(null);
	runId = $state<string | null>(null);
	/** Of the selected run, the input whose figures are asked for. */
	inputKey = $state<string | null>(null);
	preview = $state<Look | null>(null);
	/** A line to be typed, taken up by the line input. */
	suggested = $state('');
	/** How the runs stand in their list. */
	order = $state<'place' | 'worst'>('place');
	saving = $state<Saving>('saved');
	trouble = $state<Trouble | null>(null);
	/** An edit that met somebody else's: theirs is on screen, this one waits for a decision. */
	waiting = $state<Edit | null>(null);
	/** An edit the server never answered about; nothing typed is lost. */
	unsent = $state<Edit | null>(null);

	/** Edits sent or not on screen yet; controls keep what they show until this is 0 again. */
	queued = $state(0);
	private turn: Promise<void> = Promise.resolve();
	/** The rig as it was saved last: ahead of what is on screen while that is being analysed. */
	private record: RigState | null = null;
	private shown = 0;
	private lost: Sent | null = null;

	constructor(private readonly queries: QueryClient) {
		this.lost = recall();
		this.unsent = this.lost?.edit ?? null;
		if (this.unsent) {
			this.saving = 'unsaved';
			this.trouble = new Trouble(0, {
				...OFFLINE,
				message: 'A change was not saved before this page was left.'
			});
		}
	}

	open(rigId: string): void {
		this.leave(rigId);
		this.dismiss();
	}

	/** Shows what an address names. A change kept from before the page was left stays to be saved. */
	goTo({ station, rig, run }: Place): void {
		if (rig === null) return;
		if (this.rigId === null) this.leave(rig);
		else if (this.rigId !== rig) this.open(rig);
		if (station !== 'runs') return;
		if (run !== null) this.select(run);
		else this.runId = null;
	}

	/** The rig that was open last in this browser. */
	lastRig(): string | null {
		try {
			return localStorage.getItem(LAST_RIG);
		} catch {
			return null;
		}
	}

	/** The rig is gone; the first in the list opens instead. */
	forget(): void {
		this.leave(null);
	}

	private leave(next: string | null): void {
		this.rigId = next;
		this.runId = null;
		this.inputKey = null;
		this.preview = null;
		this.record = null;
		this.shown += 1;
		if (next === null) return;
		try {
			localStorage.setItem(LAST_RIG, next);
		} catch {
			// Without storage the first rig opens next time.
		}
	}

	select(runId: string): void {
		if (this.runId !== runId) {
			this.preview = null;
			this.inputKey = null;
		}
		this.runId = runId;
	}

	dismiss(): void {
		this.trouble = null;
		this.waiting = null;
		this.lost = this.unsent = null;
		remember(null);
		this.saving = 'saved';
	}

	get state(): RigView | undefined {
		return this.rigId ? this.queries.getQueryData<RigView>(rigQuery(this.rigId).queryKey) : undefined;
	}

	/** Saves an edit made on what is on screen; edits made in haste are sent in order, none waits for an analysis. */
	edit(edit: Edit): Promise<void> {
		return this.send({ rig: this.rigId, edit, base: this.state?.version ?? null, id: newId() });
	}

	undo(): Promise<void> {
		const id = newId();
		return this.inTurn(null, (now) => (now.undo_label ? undoEdit(now.rig.id, id) : null));
	}

	redo(): Promise<void> {
		const id = newId();
		return this.inTurn(null, (now) => (now.redo_label ? redoEdit(now.rig.id, id) : null));
	}

	/** Makes the waiting edit on top of what it met, or sends again what was never answered. */
	async again(): Promise<void> {
		const { waiting, lost } = this;
		const met = this.trouble?.problem.current_version ?? this.state?.version ?? null;
		this.dismiss();
		if (waiting) await this.send({ rig: this.rigId, edit: waiting, base: met, id: newId() });
		else if (lost) {
			// Kept from before a reload, it may belong to another rig than the open one.
			if (lost.rig !== null && lost.rig !== this.rigId) this.leave(lost.rig);
			await this.send(lost);
		}
	}

	/** Looks whether somebody else has saved; called again and again while the page is open. */
	async watch(): Promise<void> {
		const now = this.record ?? this.state;
		if (!now || this.queued > 0) return;
		let found: Schemas['RigVersion'];
		try {
			found = await fetchVersion(now.rig.id);
		} catch {
			// Offline is said where something is fetched or saved; this one tries again by itself.
			return;
		}
		if (this.rigId !== now.rig.id || this.queued > 0 || found.version === now.version) return;
		this.record = null;
		await this.queries.invalidateQueries({ queryKey: rigQuery(now.rig.id).queryKey });
	}

	lookAt(look: Look): void {
		this.preview = look;
	}

	lookAway(lookId: string): void {
		if (this.preview?.id === lookId) this.preview = null;
	}

	private send(sent: Sent): Promise<void> {
		return this.inTurn(sent, (now) => saveEdit(now.rig.id, sent.base ?? now.version, sent.edit, sent.id));
	}

	private inTurn(sent: Sent | null, send: (now: RigState) => Promise<Outcome> | null): Promise<void> {
		this.queued += 1;
		const saved = this.turn.then(() => this.save(sent, send));
		this.turn = saved.then(() => undefined);
		return saved
			.then((record) => (record ? this.show(record) : undefined))
			.finally(() => {
				this.queued -= 1;
			});
	}

	/** The record after a successful edit; null after a refusal. */
	private async save(
		sent: Sent | null,
		send: (now: RigState) => Promise<Outcome> | null
	): Promise<RigState | null> {
		try {
			// Just after a reload the rig may not be here yet; a change kept from before must not be dropped for that.
			const now = this.record ?? this.state ?? (this.rigId ? await fetchRecord(this.rigId) : null);
			const answer = now ? send(now) : null;
			if (!now || !answer) return null;
			this.saving = 'saving';
			this.trouble = null;
			const outcome = await answer;
			const record = afterEdit(now, outcome) ?? (await fetchRecord(now.rig.id));
			this.saving = 'saved';
			if (this.rigId !== record.rig.id) return null;
			this.record = record;
			return record;
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			await this.refused(sent, reason);
			return null;
		}
	}

	/** Brings a saved record on screen with its analysis, unless a later one is on its way. */
	private async show(record: RigState): Promise<void> {
		const ticket = ++this.shown;
		try {
			const view = await viewOf(this.queries, record);
			if (ticket !== this.shown) return;
			this.queries.setQueryData(rigQuery(record.rig.id).queryKey, view);
			this.record = null;
			this.preview = null;
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			// What was saved is safe; only looking at it failed.
			if (ticket === this.shown) this.trouble = reason;
		}
	}

	private async refused(sent: Sent | null, trouble: Trouble): Promise<void> {
		this.trouble = trouble;
		// What is on screen is what is saved, not what was looked at before it was refused.
		this.preview = null;
		this.saving = 'saved';
		if (trouble.status === 409 && this.rigId) {
			this.waiting = sent?.edit ?? null;
			this.record = null;
			await this.queries.invalidateQueries({ queryKey: rigQuery(this.rigId).queryKey });
		} else if (trouble.status === 0 || trouble.status >= 500 || trouble.status === 403) {
			this.lost = sent;
			this.unsent = sent?.edit ?? null;
			remember(sent);
			this.saving = sent ? 'unsaved' : 'saved';
		}
	}
}

/** What could not be sent outlives a reload of this tab. */
function remember(sent: Sent | null): void {
	try {
		if (sent) sessionStorage.setItem(UNSENT, JSON.stringify(sent));
		else sessionStorage.removeItem(UNSENT);
	} catch {
		// Without storage it lasts as long as the page.
	}
}

function recall(): Sent | null {
	try {
		return JSON.parse(sessionStorage.getItem(UNSENT) ?? 'null') as Sent | null;
	} catch {
		return null;
	}
}

const KEY = Symbol('desk');

export const setDesk = (desk: Desk): Desk => setContext(KEY, desk);

export function getDesk(): Desk {
	const desk = getContext<Desk | undefined>(KEY);
	if (!desk) throw new Error('No desk here: render this inside App.svelte, which calls setDesk().');
	return desk;
}
