/** A remedy or another wiring that is looked at, not made. */
import type { Schemas } from '../api/client';

/** What it is called, the run as it would be, the edit that makes it so. */
export type Look = Pick<Schemas['Remedy'], 'id' | 'title' | 'after' | 'edit'>;

export class Preview {
	look = $state<Look | null>(null);

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
