<!-- In the demonstration nobody signed in: it says so, until it is put away. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { sessionQuery } from '../../api/people';

	const PUT_AWAY = 'ruvak-demo-note';
	const session = createQuery(() => sessionQuery());
	let away = $state(recall());

	function recall(): boolean {
		try {
			return localStorage.getItem(PUT_AWAY) !== null;
		} catch {
			return false;
		}
	}

	function putAway(): void {
		away = true;
		try {
			localStorage.setItem(PUT_AWAY, 'yes');
		} catch {
			// Without storage it comes back with the page.
		}
	}
</script>

{#if session.data?.demo && !away}
	<p class="note no-print">
		This is the demonstration: you are signed in as <b>{session.data.person_name}</b>, without a passphrase,
		because this browser runs on the same computer.
		<button type="button" onclick={putAway}>Put this away</button>
	</p>
{/if}

<style>
	.note {
		padding: 0.35rem 1.1rem;
		font-size: 0.8125rem;
		color: var(--dim);
		border-bottom: 1px solid var(--line);
	}
	b {
		color: var(--ink);
	}
	button {
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 1.5rem;
		margin-left: 0.5rem;
	}
</style>
