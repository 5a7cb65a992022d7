/** What is open on the desk: the rig, the selected run, the remedy being looked at, and how saving goes. */
import type { QueryClient } from '@tanstack/svelte-query';
import { getContext, setContext } from 'svelte';
import { OFFLINE, Trouble, type Schemas } from '../api/client';
import { redoEdit, rigQuery, saveEdit, undoEdit } from '../api/queries';

type RigState = Schemas['RigState'];
type Edit = Schemas['Edit'];

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

	/** Edits sent or waiting their turn; controls keep what they show until this is 0 again. */
	queued = $state(0);
	private turn: Promise<void> = Promise.resolve();

	constructor(private readonly queries: QueryClient) {
		try {
			this.rigId = localStorage.getItem(LAST_RIG);
		} catch {
			this.rigId = null;
		}
		this.unsent = recall();
		if (this.unsent) {
			this.saving = 'unsaved';
			this.trouble = new Trouble(0, {
				...OFFLINE,
				message: 'A change was not saved before this page was left.'
			});
		}
	}

	open(rigId: string): void {
		this.rigId = rigId;
		this.runId = null;
		this.inputKey = null;
		this.preview = null;
		this.dismiss();
		try {
			localStorage.setItem(LAST_RIG, rigId);
		} catch {
			// Without storage the first rig opens next time.
		}
	}

	/** The rig is gone; the next one in the list opens instead. */
	forget(): void {
		this.rigId = null;
		this.runId = null;
		this.inputKey = null;
		this.preview = null;
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
		this.unsent = null;
		remember(null);
		this.saving = 'saved';
	}

	get state(): RigState | undefined {
		return this.rigId ? this.queries.getQueryData<RigState>(rigQuery(this.rigId).queryKey) : undefined;
	}

	/** Saves an edit on what is on screen when its turn comes; edits made in haste wait for each other. */
	edit(edit: Edit): Promise<void> {
		return this.inTurn(edit, (now) => saveEdit(now.rig.id, now.version, edit));
	}

	undo(): Promise<void> {
		return this.inTurn(null, (now) => (now.undo_label ? undoEdit(now.rig.id) : null));
	}

	redo(): Promise<void> {
		return this.inTurn(null, (now) => (now.redo_label ? redoEdit(now.rig.id) : null));
	}

	/** Makes the waiting or unsent edit again, on what is on screen now. */
	async again(): Promise<void> {
		const edit = this.waiting ?? this.unsent;
		this.dismiss();
		if (edit) await this.edit(edit);
	}

	lookAt(look: Look): void {
		this.preview = look;
	}

	lookAway(lookId: string): void {
		if (this.preview?.id === lookId) this.preview = null;
	}

	private inTurn(edit: Edit | null, send: (now: RigState) => Promise<RigState> | null): Promise<void> {
		this.queued += 1;
		this.turn = this.turn.then(async () => {
			try {
				await this.save(edit, send);
			} finally {
				this.queued -= 1;
			}
		});
		return this.turn;
	}

	private async save(edit: Edit | null, send: (now: RigState) => Promise<RigState> | null): Promise<void> {
		let sent: Promise<RigState> | null;
		try {
			// Just after a reload the rig may not be here yet; a change kept from before must not be dropped for that.
			const now =
				this.state ?? (this.rigId ? await this.queries.fetchQuery(rigQuery(this.rigId)) : undefined);
			sent = now ? send(now) : null;
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			await this.refused(edit, reason);
			return;
		}
		if (!sent) return;
		this.saving = 'saving';
		this.trouble = null;
		try {
			const saved = await sent;
			this.queries.setQueryData(rigQuery(saved.rig.id).queryKey, saved);
			this.preview = null;
			this.saving = 'saved';
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			await this.refused(edit, reason);
		}
	}

	private async refused(edit: Edit | null, trouble: Trouble): Promise<void> {
		this.trouble = trouble;
		// What is on screen is what is saved, not what was looked at before it was refused.
		this.preview = null;
		this.saving = 'saved';
		if (trouble.status === 409 && this.rigId) {
			this.waiting = edit;
			await this.queries.invalidateQueries({ queryKey: rigQuery(this.rigId).queryKey });
		} else if (trouble.status === 0 || trouble.status >= 500 || trouble.status === 403) {
			this.unsent = edit;
			remember(edit);
			this.saving = edit ? 'unsaved' : 'saved';
		}
	}
}

/** What could not be sent outlives a reload of this tab. */
function remember(edit: Edit | null): void {
	try {
		if (edit) sessionStorage.setItem(UNSENT, JSON.stringify(edit));
		else sessionStorage.removeItem(UNSENT);
	} catch {
		// Without storage it lasts as long as the page.
	}
}

function recall(): Edit | null {
	try {
		return JSON.parse(sessionStorage.getItem(UNSENT) ?? 'null') as Edit | null;
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
