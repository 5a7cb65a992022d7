<!-- What did not work, in plain words, with the next step. -->
<script lang="ts">
	import { wasCancelled } from '../../api/client';
	import { inWords } from '../../domain/meetings';
	import { getDesk } from '../../state/desk.svelte';

	let { failure, onretry }: { failure: Error | null; onretry: () => void } = $props();
	const OFFLINE_WORDS = 'No answer from the server. What was saved is safe; what you see may be old.';
	const desk = getDesk();
	const meetings = $derived((desk.sync.trouble?.problem.meetings ?? []).map(inWords));
</script>

{#if desk.sync.trouble}
	<div class="notice" role="alert">
		<p>
			{desk.sync.trouble.message}
			{#if desk.sync.waiting}<b>Yours: “{desk.sync.waiting.label}”.</b> Theirs is on screen now.{/if}
			{#each meetings as one (one.place)}
				<span class="meeting"
					>{one.place}: yours <b>{one.yours}</b>, theirs <b>{one.theirs}</b> ({one.by}).</span
				>
			{/each}
			{#if desk.sync.unsent}<b>“{desk.sync.unsent.label}”</b> is kept here until it is saved.{/if}
		</p>
		<div class="choices">
			{#if desk.sync.waiting}
				<button class="btn go" onclick={() => void desk.sync.again()}>Make mine on top of theirs</button>
				<button class="btn preset-tonal" onclick={() => desk.sync.dismiss()}>Keep theirs</button>
			{:else if desk.sync.unsent}
				<button class="btn go" onclick={() => void desk.sync.again()}>Try again</button>
				<button class="btn preset-tonal" onclick={() => desk.sync.dismiss()}>Give it up</button>
			{:else}
				<button class="btn preset-tonal" onclick={() => desk.sync.dismiss()}>All right</button>
			{/if}
		</div>
	</div>
{:else if failure}
	<div class="notice" role="alert">
		<p>{wasCancelled(failure) ? failure.message : OFFLINE_WORDS}</p>
		<div class="choices"><button class="btn preset-tonal" onclick={onretry}>Try again</button></div>
	</div>
{/if}

<style>
	.notice {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		justify-content: space-between;
		gap: 0.6rem 1.5rem;
		padding: 0.7rem 1.25rem;
		background: var(--fix-wash);
		/* Wherever the page is scrolled to, what went wrong stays in sight. */
		position: sticky;
		top: 0;
		z-index: 6;
		border-bottom: 1px solid var(--fix);
	}
	.meeting {
		display: block;
	}
	.choices {
		display: flex;
		gap: 0.6rem;
	}
</style>
