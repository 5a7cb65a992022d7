<!-- What could stand at one place of a run. Arrow keys walk; looking solves it; Enter or a click takes it. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { Schemas } from '../../api/client';
	import { choicesQuery } from '../../api/queries';
	import { getDesk } from '../../state/desk.svelte';

	interface Props {
		rigId: string;
		runId: string;
		at: number;
		replace: boolean;
		onlook: (choice: Schemas['PieceChoice']) => void;
		onpick: (choice: Schemas['PieceChoice']) => void;
		onclose: () => void;
	}
	let { rigId, runId, at, replace, onlook, onpick, onclose }: Props = $props();
	const desk = getDesk();
	const choices = createQuery(() => choicesQuery(rigId, runId, desk.sync.state?.version ?? '', at, replace));
	let filter = $state('');
	const shown = $derived(
		(choices.data ?? []).filter((one) => one.words.toLowerCase().includes(filter.trim().toLowerCase()))
	);

	function walk(event: KeyboardEvent & { currentTarget: HTMLElement }): void {
		if (event.key === 'Escape') onclose();
		const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
		if (step === undefined) return;
		const buttons = [...event.currentTarget.querySelectorAll<HTMLElement>('button')];
		buttons[buttons.indexOf(document.activeElement as HTMLElement) + step]?.focus();
		event.preventDefault();
		event.stopPropagation();
	}
</script>

<!-- svelte-ignore a11y_no_static_element_interactions -->
<div class="choices" onkeydown={walk}>
	<input type="text" aria-label="Find a lead, adapter or box" placeholder="find…" bind:value={filter} />
	{#if choices.isPending}<p class="quiet">Looking through the kit…</p>{/if}
	<ul>
		{#each shown as choice (choice.item + String(choice.length_m))}
			<li>
				<button
					type="button"
					onfocus={() => onlook(choice)}
					onpointerenter={(event) => event.pointerType !== 'touch' && onlook(choice)}
					onclick={() => onpick(choice)}
				>
					<span>{choice.words}</span>
					<span class="quiet">{choice.in_kit ? '' : 'to get'}{choice.fits ? '' : ' does not fit here'}</span>
				</button>
			</li>
		{:else}
			{#if !choices.isPending}<li class="quiet">Nothing of that name.</li>{/if}
		{/each}
	</ul>
</div>

<style>
	.choices {
		flex-basis: 100%;
		border: 1px solid var(--line-strong);
		background: var(--raised);
		max-width: 34rem;
	}
	input {
		width: 100%;
		background: transparent;
		color: var(--ink);
		border-bottom: 1px solid var(--line);
		padding: 0.35rem 0.7rem;
		font-size: 0.875rem;
	}
	ul {
		max-height: 14rem;
		overflow-y: auto;
	}
	li:not(:has(button)) {
		padding: 0.4rem 0.7rem;
	}
	button {
		display: flex;
		justify-content: space-between;
		gap: 1rem;
		width: 100%;
		text-align: left;
		padding: 0.3rem 0.7rem;
	}
	button:hover,
	button:focus {
		background: var(--line);
	}
</style>
