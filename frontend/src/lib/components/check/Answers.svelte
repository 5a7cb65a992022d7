<!-- The large answers within a thumb's reach. On stage nobody hears it, so the first is that it plays. -->
<script lang="ts">
	import { Check, Play, SkipForward, X } from '@lucide/svelte';
	import type { Answer, AnsweredLast } from '../../domain/check';
	import type { Role } from '../../domain/working';

	let {
		role,
		undo,
		address,
		steady,
		onanswer,
		onwrong,
		onworking,
		onundo
	}: {
		role: Role;
		/** What was answered last on this device. */
		undo: AnsweredLast | null;
		/** Of the run that was answered as wrong just now. */
		address: string | null;
		/** Whether the card has been there long enough to be answered. */
		steady: boolean;
		onanswer: (answer: Answer) => void;
		onwrong: () => void;
		onworking: () => void;
		onundo: () => void;
	} = $props();
</script>

<div class="answers">
	{#if undo}
		<p class="undo">
			{undo.words}: {undo.answer}.
			<button type="button" class="in-text" onclick={onundo}>Take it back</button>
			{#if address}<a class="in-text" href={address}>Open the run</a>{/if}
		</p>
	{/if}
	{#if role === 'stage'}
		<button type="button" class="answer play" disabled={!steady} onclick={onworking}
			><Play size={30} aria-hidden="true" />Playing now</button
		>
	{:else}
		<button type="button" class="answer good" disabled={!steady} onclick={() => onanswer('good')}
			><Check size={30} aria-hidden="true" />{role === 'desk' ? 'I hear it' : 'Good'}</button
		>
		<button type="button" class="answer wrong" disabled={!steady} onclick={onwrong}
			><X size={30} aria-hidden="true" />Wrong</button
		>
	{/if}
	<button type="button" class="answer skip" disabled={!steady} onclick={() => onanswer('skipped')}
		><SkipForward size={26} aria-hidden="true" />Skip</button
	>
</div>

<style>
	.answers {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.6rem;
		padding: 0.8rem 1rem 1rem;
		background: var(--panel);
		border-top: 1px solid var(--line);
		position: sticky;
		bottom: 0;
	}
	.undo {
		grid-column: 1 / -1;
		color: var(--dim);
	}
	.answer {
		display: flex;
		align-items: center;
		justify-content: center;
		gap: 0.5rem;
		min-height: 4.2rem;
		font-size: 1.25rem;
		font-weight: 600;
		border: 2px solid var(--line-strong);
		background: var(--raised);
	}
	.good {
		border-color: var(--clear);
		background: var(--clear-wash);
	}
	.wrong {
		border-color: var(--stop);
		background: var(--stop-wash);
	}
	.play {
		grid-column: 1 / -1;
		border-color: var(--accent);
	}
	.skip {
		grid-column: 1 / -1;
		min-height: 3rem;
		font-size: 1.05rem;
		font-weight: 400;
	}
	/* Text at 200 % on a phone. */
	@media (max-width: 20em) {
		.answers {
			gap: 0.3rem;
			padding: 0.4rem 0.5rem;
		}
		.answer {
			min-height: 3rem;
			font-size: 1rem;
		}
		.skip {
			min-height: 2rem;
		}
		.answer :global(svg) {
			width: 1.2rem;
		}
	}
</style>
