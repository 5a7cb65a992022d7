/** How saving goes: edits on their way, refused, unanswered; and what others save meanwhile. */
import type { QueryClient } from '@tanstack/svelte-query';
import { OFFLINE, Trouble, type Schemas } from '../api/client';
import { redoEdit, rigQuery, saveEdit, undoEdit } from '../api/queries';
import { fetchDrawing, fetchRecord, fetchVersion, viewOf, type RigView } from '../api/rig-view';
import { afterEdit } from '../domain/changed';
import { newId } from '../domain/ids';
import type { Preview } from './preview.svelte';
import type { Selection } from './selection.svelte';
import { recall, remember, type Sent } from './unsent';

type RigState = Schemas['RigState'];
type Edit = Schemas['Edit'];
type Outcome = Schemas['EditOutcome'];

/** Refusals after which the same change can be saved once the page has its token again, or somebody has signed in. */
const LATER = ['csrf', 'signed_out'];

export type Saving = 'saved' | 'saving' | 'unsaved';

export class Sync {
	saving = $state<Saving>('saved');
	trouble = $state<Trouble | null>(null);
	/** An edit that met somebody else's: theirs is on screen, this one waits for a decision. */
	waiting = $state<Edit | null>(null);
	/** An edit the server never answered about; nothing typed is lost. */
	unsent = $state<Edit | null>(null);

	/** The selected run as an edit has rewired it, while its figures are still computed. */
	ahead = $state<{ run: string; drawing: Schemas['RunDrawing'] } | null>(null);
	/** Edits sent or not on screen yet; controls keep what they show until this is 0 again. */
	queued = $state(0);
	private turn: Promise<void> = Promise.resolve();
	/** The rig as it was saved last: ahead of what is on screen while that is being analysed. */
	private record: RigState | null = null;
	private shown = 0;
	private lost: Sent | null = null;
	/** What kept the last saved version from the screen; gone once that is shown after all. */
	private unseen: Trouble | null = null;

	constructor(
		private readonly queries: QueryClient,
		private readonly selection: Selection,
		private readonly preview: Preview
	) {
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

	dismiss(): void {
		this.trouble = null;
		this.waiting = null;
		this.lost = this.unsent = null;
		remember(null);
		this.saving = 'saved';
	}

	/** Another rig than `before` is open. A change kept from before the page was left stays to be saved. */
	leave(before: string | null): void {
		if (before === this.selection.rigId) return;
		this.record = null;
		this.ahead = null;
		this.shown += 1;
		if (before !== null && this.selection.rigId !== null) this.dismiss();
	}

	get state(): RigView | undefined {
		return this.selection.rigId
			? this.queries.getQueryData<RigView>(rigQuery(this.selection.rigId).queryKey)
			: undefined;
	}

	/**
	 * Saves an edit made on what is on screen, or on the version `base`; edits made in haste are sent in order, none
	 * waits for an analysis. Answers whether it was saved, once it is on screen.
	 */
	edit(edit: Edit, base: string | null = this.state?.version ?? null): Promise<boolean> {
		return this.send({ rig: this.selection.rigId, edit, base, id: newId() });
	}

	/** Ends when every edit made so far has been answered. */
	allSaved(): Promise<void> {
		return this.turn;
	}

	undo(): Promise<boolean> {
		const id = newId();
		return this.inTurn(null, (now) => (now.undo_label ? undoEdit(now.rig.id, id) : null));
	}

	redo(): Promise<boolean> {
		const id = newId();
		return this.inTurn(null, (now) => (now.redo_label ? redoEdit(now.rig.id, id) : null));
	}

	/** Makes the waiting edit on top of what it met, or sends again what was never answered. */
	async again(): Promise<void> {
		const { waiting, lost } = this;
		const met = this.trouble?.problem.current_version ?? this.state?.version ?? null;
		this.dismiss();
		if (waiting) await this.send({ rig: this.selection.rigId, edit: waiting, base: met, id: newId() });
		else if (lost) {
			// Kept from before a reload, it may belong to another rig than the open one.
			if (lost.rig !== null && lost.rig !== this.selection.rigId) this.selection.open(lost.rig);
			await this.send(lost);
		}
	}

	/** Looks whether somebody else has saved; called again and again while the page is open. */
	async watch(): Promise<void> {
		// What is on screen counts, not what was saved last: where looking at that failed, it is fetched again here.
		const now = this.state ?? this.record;
		if (!now || this.queued > 0) return;
		let found: Schemas['RigVersion'];
		try {
			found = await fetchVersion(now.rig.id);
		} catch {
			// Offline is said where something is fetched or saved; this one tries again by itself.
			return;
		}
		if (this.selection.rigId !== now.rig.id || this.queued > 0 || found.version === now.version) return;
		this.record = null;
		await this.queries.invalidateQueries({ queryKey: rigQuery(now.rig.id).queryKey });
		if (this.trouble === this.unseen && this.state?.version === found.version) this.trouble = null;
	}

	private send(sent: Sent): Promise<boolean> {
		return this.inTurn(sent, (now) => saveEdit(now.rig.id, sent.base ?? now.version, sent.edit, sent.id));
	}

	private inTurn(sent: Sent | null, send: (now: RigState) => Promise<Outcome> | null): Promise<boolean> {
		this.queued += 1;
		const saved = this.turn.then(() => this.save(sent, send));
		this.turn = saved.then(() => undefined);
		return saved
			.then(async (record) => {
				if (record) await this.show(record);
				return record !== null;
			})
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
			const now =
				this.record ?? this.state ?? (this.selection.rigId ? await fetchRecord(this.selection.rigId) : null);
			const answer = now ? send(now) : null;
			if (!now || !answer) return null;
			this.saving = 'saving';
			this.trouble = null;
			const outcome = await answer;
			const record = afterEdit(now, outcome) ?? (await fetchRecord(now.rig.id));
			this.saving = 'saved';
			if (this.selection.rigId !== record.rig.id) return null;
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
		void this.drawAhead(record, ticket);
		try {
			const view = await viewOf(this.queries, record);
			if (ticket !== this.shown) return;
			this.queries.setQueryData(rigQuery(record.rig.id).queryKey, view);
			this.record = null;
			this.ahead = null;
			this.preview.clear();
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			// What was saved is safe; only looking at it failed.
			if (ticket !== this.shown) return;
			this.trouble = this.unseen = reason;
			this.ahead = null;
			this.preview.clear();
		}
	}

	/** The selected run's strip needs no solving, so it does not wait for the figures. */
	private async drawAhead(record: RigState, ticket: number): Promise<void> {
		const run = this.selection.runId;
		if (run === null || !record.rig.runs?.some(({ id }) => id === run)) return;
		try {
			const drawing = await fetchDrawing(record.rig.id, record.version, run);
			if (ticket === this.shown && this.record === record) this.ahead = { run, drawing };
		} catch {
			// It comes with the figures a moment later.
		}
	}

	private async refused(sent: Sent | null, trouble: Trouble): Promise<void> {
		this.trouble = trouble;
		// What is on screen is what is saved, not what was looked at before it was refused.
		this.preview.clear();
		this.saving = 'saved';
		if (trouble.status === 409 && this.selection.rigId) {
			this.waiting = sent?.edit ?? null;
			this.record = null;
			await this.queries.invalidateQueries({ queryKey: rigQuery(this.selection.rigId).queryKey });
		} else if (trouble.status === 0 || trouble.status >= 500 || LATER.includes(trouble.problem.code)) {
			this.lost = sent;
			this.unsent = sent?.edit ?? null;
			remember(sent);
			this.saving = sent ? 'unsaved' : 'saved';
		}
	}
}
