<!-- A step of the hook-up: what to do and why; done, skipped with a note, or taken back. -->
<script lang="ts">
	import { clock } from '../../domain/format';
	import type { Step, StepState } from '../../domain/hook-up';

	interface Props {
		step: Step;
		state: StepState | undefined;
		/** How many steps before it are still open. */
		waits: number;
		isNext: boolean;
		may: boolean;
		onsay: (given: 'good' | 'skipped', note?: string) => void;
		onback: () => void;
	}
	let { step, state: stands, waits, isNext, may, onsay, onback }: Props = $props();
	let skipping = $state(false);
	let note = $state('');

	function skip(event: SubmitEvent): void {
		event.preventDefault();
		onsay('skipped', note.trim());
		skipping = false;
		note = '';
	}
</script>

<li class:done={stands} class:next={isNext}>
	<div class="what">
		<p class="words">{step.words}</p>
		{#if isNext || skipping}<p class="quiet">{step.why}</p>{/if}
		{#if stands}
			<p class="quiet">
				{stands.answer === 'good' ? 'done' : `skipped${stands.note ? `: ${stands.note}` : ''}`}, {stands.person},
				{clock(stands.at)}
			</p>
		{:else if waits > 0 && isNext}
			<p class="early">
				{waits}
				{waits === 1 ? 'step' : 'steps'} before this {waits === 1 ? 'is' : 'are'} open.
			</p>
		{/if}
		{#if skipping}
			<form class="in-a-row" onsubmit={skip}>
				<label class="field"
					><span>Why it is skipped</span>
					<input maxlength="300" placeholder="stays off tonight" bind:value={note} /></label
				>
				<button type="submit" class="btn preset-tonal">Skip it</button>
			</form>
		{/if}
	</div>
	{#if may}
		<span class="acts no-print">
			{#if stands}
				<button type="button" class="in-text" onclick={onback}
					>Take back<span class="sr-only"> {step.words}</span></button
				>
			{:else}
				<button type="button" class="btn {isNext ? 'go' : 'preset-tonal'}" onclick={() => onsay('good')}
					>Done<span class="sr-only">: {step.words}</span></button
				>
				<button type="button" class="in-text" onclick={() => (skipping = !skipping)}
					>Skip<span class="sr-only"> {step.words}</span></button
				>
			{/if}
		</span>
	{/if}
</li>

<style>
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: 0.4rem 1rem;
		align-items: start;
		padding: 0.4rem 0 0.4rem 0.8rem;
		border-bottom: 1px solid var(--line);
		border-left: 4px solid transparent;
	}
	li.next {
		border-left-color: var(--accent);
	}
	li.done {
		border-left-color: var(--clear);
	}
	.done .words {
		color: var(--dim);
	}
	.early {
		color: var(--fix);
	}
	.acts {
		display: flex;
		gap: 0.9rem;
		align-items: center;
	}
	.acts .btn {
		min-height: 2.75rem;
		min-width: 5rem;
	}
	.acts .in-text {
		min-height: 2.75rem;
	}
	@media (max-width: 720px) {
		.acts {
			flex-direction: column;
			gap: 0;
		}
	}
</style>
