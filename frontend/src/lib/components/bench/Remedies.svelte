<!-- What cures the selected run, and what people try that does not. -->
<script lang="ts">
	import type { RigView } from '../../api/rig-view';
	import { createQuery } from '@tanstack/svelte-query';
	import type { Schemas } from '../../api/client';
	import { remediesQuery } from '../../api/queries';
	import { firstOnTop } from '../../domain/effects';
	import RemedyCard from './RemedyCard.svelte';

	interface Props {
		state: RigView;
		run: Schemas['RunAnalysis'];
	}
	let { state, run }: Props = $props();
	const kept = $derived(new Set(run.drawing.pieces.map((piece) => piece.owner)));
	const unit = $derived(state.rig.length_unit ?? 'm');

	// The first is there soonest by itself; the others follow.
	const first = createQuery(() => remediesQuery(state.rig.id, run.run, state.version, true));
	const all = createQuery(() => ({
		...remediesQuery(state.rig.id, run.run, state.version, false),
		enabled: !first.isPending
	}));
	const remedies = $derived(all.data ? all : first.data?.length ? first : all.isError ? all : first);
	const found = $derived(remedies.data ? firstOnTop(first.data ?? [], remedies.data) : []);
	const helping = $derived(found.filter((one) => one.helps));
	const tried = $derived(found.filter((one) => !one.helps));

	/** Up and down walk the cards; Tab works as everywhere. */
	function walk(event: KeyboardEvent & { currentTarget: HTMLElement }): void {
		const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
		if (step === undefined) return;
		const cards = [...event.currentTarget.querySelectorAll<HTMLElement>('button.remedy')];
		const next = cards[cards.indexOf(document.activeElement as HTMLElement) + step];
		if (!next) return;
		event.preventDefault();
		event.stopPropagation();
		next.focus();
	}
</script>

{#snippet cards(some: Schemas['Remedy'][])}
	{#each some as remedy (remedy.id)}<RemedyCard {remedy} version={state.version} {unit} {kept} />{/each}
{/snippet}

<section class="remedies" aria-label="Remedies">
	{#if remedies.isPending}
		<h3 class="heading">Solving remedies…</h3>
		<div class="placeholder animate-pulse"></div>
		<div class="placeholder animate-pulse"></div>
	{:else if remedies.isError}
		<h3 class="heading">Remedies</h3>
		<p>The remedies could not be fetched. {remedies.error.message}</p>
		<button class="btn preset-tonal" onclick={() => remedies.refetch()}>Try again</button>
	{:else}
		<!-- svelte-ignore a11y_no_static_element_interactions -->
		<div class="cards" onkeydown={walk}>
			{#if helping.length > 0}
				<h3 class="heading">What cures it</h3>
				{@render cards(helping)}
			{:else if all.isPending}
				<h3 class="heading">Solving remedies…</h3>
				<div class="placeholder animate-pulse"></div>
			{:else}
				<p class="quiet">Nothing in the kit or the parts library improves this run.</p>
			{/if}
			{#if helping.length > 0 && all.isPending}
				<p class="quiet" role="status">Looking for others…</p>
			{:else if helping.length > 0 && all.isError}
				<p class="quiet">
					The others could not be fetched. {all.error.message}
					<button type="button" class="in-text" onclick={() => all.refetch()}>Try again</button>
				</p>
			{/if}
			{#if tried.length > 0}
				<h3 class="heading">Does not help</h3>
				{@render cards(tried)}
			{/if}
		</div>
	{/if}
</section>

<style>
	.cards {
		display: grid;
		gap: 0.55rem;
	}
	h3:not(:first-child) {
		margin-top: 0.6rem;
	}
	.placeholder {
		height: 5rem;
		background: var(--raised);
		margin-top: 0.55rem;
	}
</style>
