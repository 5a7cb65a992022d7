/** Signing in, by whatever way: what is asked, what was refused, and what follows. */
import type { QueryClient } from '@tanstack/svelte-query';
import { forgetToken, Trouble, type Schemas } from '../api/client';
import { forgetChecks } from '../api/check-store';
import { sessionQuery, signOut } from '../api/people';

export class Signing {
	/** What was refused, in words. */
	refused = $state<Schemas['Problem'] | null>(null);
	busy = $state(false);

	constructor(private readonly queries: QueryClient) {}

	/** Tries something that signs this browser in or out; answers whether it worked. */
	async attempt(way: () => Promise<unknown>): Promise<boolean> {
		this.busy = true;
		this.refused = null;
		try {
			await way();
			await this.renew();
			return true;
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			this.refused = reason.problem;
			return false;
		} finally {
			this.busy = false;
		}
	}

	/** What another person saw must not stay here for the next; answers that wait to be sent do, for their own person. */
	async renew(): Promise<void> {
		forgetToken();
		await forgetChecks().catch(() => undefined);
		this.queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' });
		await this.queries.invalidateQueries({ queryKey: sessionQuery().queryKey });
	}

	out(): Promise<boolean> {
		return this.attempt(signOut);
	}
}
