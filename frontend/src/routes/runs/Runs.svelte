<!-- Strips grouped by where they go; beside them what to do about the selected one. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { tick } from 'svelte';
	import { MediaQuery } from 'svelte/reactivity';
	import Assumed from '../../lib/components/frame/Assumed.svelte';
	import RigFindings from '../../lib/components/frame/RigFindings.svelte';
	import { rigQuery, rigsQuery } from '../../lib/api/queries';
	import Bench from '../../lib/components/bench/Bench.svelte';
	import Details from '../../lib/components/bench/Details.svelte';
	import NoRuns from '../../lib/components/entry/NoRuns.svelte';
	import RunCard from '../../lib/components/strip/RunCard.svelte';
	import { grouped, worstFirst, worstRun } from '../../lib/domain/groups';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const query = createQuery(() => ({ ...rigQuery(desk.rigId ?? ''), enabled: desk.rigId !== null }));
	const rigs = createQuery(() => rigsQuery());
	const state = $derived(query.data);
	const groups = $derived(state ? (desk.order === 'worst' ? worstFirst(state) : grouped(state)) : []);
	const runs = $derived(groups.flatMap((group) => group.runs));
	const selected = $derived(
		runs.find((run) => run.run === desk.runId) ?? (state ? worstRun(state) : undefined)
	);
	const many = $derived(runs.length > 3);

	/** What is selected elsewhere, or worst of all on opening, comes into sight; before that, what is said of the rig. */
	$effect(() => {
		const [run, order] = [selected?.run, desk.order];
		const first = desk.runId === null && (state?.analysis.findings ?? []).length > 0;
		if (run && order && !first)
			void tick().then(() =>
				document.querySelector(`article[data-run="${run}"]`)?.scrollIntoView({ block: 'nearest' })
			);
	});
	const wide = new MediaQuery('min-width: 980px');
	const preview = $derived(desk.preview?.after.run === selected?.run ? desk.preview : null);
</script>

<svelte:head><title>{state ? `${state.rig.name} · Runs` : 'Ruvak'}</title></svelte:head>

{#if !state}
	<div class="waiting">
		{#if rigs.data?.length === 0}
			<p>There is no rig here. Make a new one, or bring in a rig file, at <a href="#/rigs">Rigs</a>.</p>
		{:else if query.isError}
			<p>The rig could not be opened. What was saved is safe; <a href="#/rigs">Rigs</a> lists the others.</p>
		{:else}
			<p class="quiet" role="status">Opening the rig: tracing and solving every run…</p>
			{#each [1, 2, 3] as place (place)}<div
					class="placeholder animate-pulse"
					aria-hidden="true"
				></div>{/each}
		{/if}
	</div>
{:else if !selected}
	<NoRuns unit={state.rig.length_unit ?? 'm'} />
{:else}
	<div class="runs">
		<div class="list">
			<div class="above no-print">
				{#if many}
					<div class="segments" role="group" aria-label="Order of the runs">
						<button type="button" aria-pressed={desk.order === 'place'} onclick={() => (desk.order = 'place')}
							>By destination</button
						>
						<button type="button" aria-pressed={desk.order === 'worst'} onclick={() => (desk.order = 'worst')}
							>Worst first</button
						>
					</div>
				{/if}
				<Assumed {state} />
			</div>
			<RigFindings {state} />
			{#each groups as group (group.words)}
				<h2 class="heading group">
					{group.words}
					{#if group.together}<span class="together">{group.together}</span>{/if}
				</h2>
				{#each group.runs as run (run.run)}
					<RunCard rig={state.rig} {run} selected={run.run === selected.run} />
					{#if run.run === selected.run}
						{#if !wide.current}<Bench {state} run={selected} />{/if}
						<div class="details"><Details rig={state.rig} {run} after={preview?.after ?? null} /></div>
					{/if}
				{/each}
			{/each}
		</div>
		{#if wide.current}<Bench {state} run={selected} />{/if}
	</div>
{/if}

<style>
	.runs {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 23.5rem;
		flex: 1;
		min-height: 0;
	}
	/* Each side scrolls by itself, so that a remedy far down still previews on a strip in sight. */
	.list {
		overflow-y: auto;
	}
	.above {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem 1.5rem;
		align-items: start;
		padding: 0.6rem 1.25rem;
		position: sticky;
		top: 0;
		z-index: 5;
		background: var(--ground);
		border-bottom: 1px solid var(--line);
	}
	.above:not(:has(> *)) {
		display: none;
	}
	/* Opened, the questions scroll with the rest instead of covering it. */
	.above:has(:global(details[open])) {
		position: static;
	}
	.group {
		padding: 0.7rem 1.25rem 0.4rem;
	}
	.together {
		font-weight: 400;
		font-size: 0.8125rem;
		color: var(--dim);
		margin-left: 0.75rem;
		text-transform: none;
		letter-spacing: normal;
	}
	.details {
		padding: 1.1rem 1.25rem;
		border-bottom: 1px solid var(--line);
	}
	.waiting {
		padding: 2rem;
	}
	.waiting a {
		text-decoration: underline;
	}
	.placeholder {
		height: 9rem;
		max-width: 48rem;
		margin-top: 1.25rem;
		background: var(--raised);
	}
	@media (max-width: 980px) {
		.runs {
			display: block;
		}
		/* There the page scrolls under the top bar, and this with it. */
		.above {
			position: static;
		}
	}
	@media print {
		.runs {
			display: block;
		}
	}
</style>
