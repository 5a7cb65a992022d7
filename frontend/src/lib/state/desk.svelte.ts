/** What is open on the desk: what is selected, what is looked at, how saving goes. */
import type { QueryClient } from '@tanstack/svelte-query';
import type { Schemas } from '../api/client';
import { getContext, setContext } from 'svelte';
import { Preview } from './preview.svelte';
import { Selection } from './selection.svelte';
import { Sync } from './sync.svelte';

export type Right = Schemas['Right'];

export class Desk {
	readonly preview = new Preview();
	readonly selection: Selection;
	readonly sync: Sync;
	/** What whoever is signed in may do. The server decides; this only keeps from the screen what it would refuse. */
	rights = $state.raw<readonly Right[]>([]);
	/** Who is signed in here; null before it is known. */
	person = $state<string | null>(null);
	/** Whether a link brought whoever is here: it opens one rig and nothing else of the house. */
	byLink = $state(false);
	/** A line to be typed, taken up by the line input. */
	suggested = $state('');

	may(right: Right): boolean {
		return this.rights.includes(right);
	}

	/** Whether the server has said who is here; without a network it has not. */
	get isKnown(): boolean {
		return this.person !== null;
	}

	/** As far as this page knows: what is recorded before the server can be asked is kept, and refused then if need be. */
	get mayRecord(): boolean {
		return !this.isKnown || this.may('record');
	}

	constructor(queries: QueryClient) {
		this.selection = new Selection((before) => {
			this.preview.clear();
			this.sync.leave(before);
		});
		this.sync = new Sync(queries, this.selection, this.preview);
	}
}

const KEY = Symbol('desk');

export const setDesk = (desk: Desk): Desk => setContext(KEY, desk);

export function getDesk(): Desk {
	const desk = getContext<Desk | undefined>(KEY);
	if (!desk) throw new Error('No desk here: render this inside App.svelte, which calls setDesk().');
	return desk;
}
