/** A remedy or another wiring that is looked at, not made. */
import type { Schemas } from '../api/client';

/** What it is called, the run as it would be, the edit that makes it so, and the version of the rig it was solved on. */
export type Look = Pick<Schemas['Remedy'], 'id' | 'title' | 'after' | 'edit'> & { version: string };

export class Preview {
	look = $state<Look | null>(null);

	/** What is looked at in a run of that version: a pointer can still enter a card that a newer version takes away. */
	of(run: string, version: string): Look | null {
		return this.look?.after.run === run && this.look.version === version ? this.look : null;
	}

	lookAt(look: Look): void {
		this.look = look;
	}

	lookAway(lookId: string): void {
		if (this.look?.id === lookId) this.look = null;
	}

	clear(): void {
		this.look = null;
	}
}
