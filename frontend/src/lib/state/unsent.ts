/** What could not be sent, kept over a reload of this tab. */
import type { Schemas } from '../api/client';

/** An edit on its way: the rig, what it was made on, and its own name, so that sent again it is not made twice. */
export interface Sent {
	rig: string | null;
	edit: Schemas['Edit'];
	base: string | null;
	id: string;
}

const UNSENT = 'ruvak-unsent';

export function remember(sent: Sent | null): void {
	try {
		if (sent) sessionStorage.setItem(UNSENT, JSON.stringify(sent));
		else sessionStorage.removeItem(UNSENT);
	} catch {
		// Without storage it lasts as long as the page.
	}
}

export function recall(): Sent | null {
	try {
		return JSON.parse(sessionStorage.getItem(UNSENT) ?? 'null') as Sent | null;
	} catch {
		return null;
	}
}
