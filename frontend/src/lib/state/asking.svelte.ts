/** One thing asked of the server from a form: whether it is on its way, done, or refused in words. */
import { Trouble, type Schemas } from '../api/client';

export class Asking {
	busy = $state(false);
	refused = $state<string | null>(null);
	/** What it was refused with, where more than a sentence counts. */
	problem = $state.raw<Schemas['Problem'] | null>(null);

	/** What it answers, or null where it was refused. */
	async ask<Result>(what: () => Promise<Result>): Promise<{ result: Result } | null> {
		this.busy = true;
		this.refused = null;
		this.problem = null;
		try {
			return { result: await what() };
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			this.refused = reason.message;
			this.problem = reason.problem;
			return null;
		} finally {
			this.busy = false;
		}
	}
}
