<!-- Whether everything is with the server: no network, or what it does not take. -->
<script lang="ts">
	import type { CheckBook } from '../../state/check-book.svelte';

	let { book }: { book: CheckBook } = $props();
	const waiting = $derived(
		book.unsent.length === 1
			? '1 answer is'
			: `${book.unsent.length === 0 ? 'answers' : `${book.unsent.length} answers`} are`
	);
</script>

{#if !book.online}
	<p class="note" role="status">
		No network. Go on: {waiting} kept on this device and sent when it is back.
	</p>
{:else if book.trouble}
	<p class="note" role="alert">
		{book.trouble.message}{book.unsent.length > 0
			? ` ${book.unsent.length} answers wait on this device.`
			: ''}
	</p>
{/if}
{#if !book.keeps}
	<p class="note" role="alert">
		This browser keeps nothing (a private window?): stay on this page until every answer is sent.
	</p>
{/if}

<style>
	.note {
		padding: 0.5rem 1.25rem;
		background: var(--fix-wash);
	}
	@media (max-width: 720px) {
		.note {
			padding-inline: 0.9rem;
		}
	}
</style>
