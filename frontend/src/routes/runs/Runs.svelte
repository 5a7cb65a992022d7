<!-- Every run a line, the selected one opened in place to its strip, its figures and what cures it. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { onDestroy, tick } from 'svelte';
	import { MediaQuery } from 'svelte/reactivity';
	import { Virtualizer, type VirtualizerHandle } from 'virtua/svelte';
	import { rigQuery, rigsQuery } from '../../lib/api/queries';
	import NoRuns from '../../lib/components/entry/NoRuns.svelte';
	import RigFindings from '../../lib/components/frame/RigFindings.svelte';
	import ListHead from '../../lib/components/runs/ListHead.svelte';
	import ListTools from '../../lib/components/runs/ListTools.svelte';
	import RunRow from '../../lib/components/runs/RunRow.svelte';
	import { rowsOf, worstRun, type Row } from '../../lib/domain/groups';
	import { keepInSight } from '../../lib/components/runs/scrolling';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const query = createQuery(() => ({
		...rigQuery(desk.selection.rigId ?? ''),
		enabled: desk.selection.rigId !== null
	}));
	const rigs = createQuery(() => rigsQuery());
	const view = $derived(query.data);
	const rows = $derived(view ? rowsOf(view, desk.selection.order) : []);
	const runs = $derived(rows.flatMap((row) => (row.kind === 'run' ? [row.run] : [])));
	const selected = $derived(
		runs.find((run) => run.run === desk.selection.runId) ?? (view ? worstRun(view) : undefined)
	);
	/** Its id alone: what comes into sight must not follow every new figure. */
	const selectedId = $derived(selected?.run);
	const selectedAt = $derived(rows.findIndex((row) => row.kind === 'run' && row.run === selected));
	const printing = new MediaQuery('print');
	let list: HTMLElement | undefined = $state();
	let virtualizer: VirtualizerHandle | undefined = $state();

	$effect(() => {
		desk.selection.listed = runs.map((run) => run.run);
		desk.selection.worstId = selectedId ?? null;
	});

	/** What is selected elsewhere, or worst of all on opening, comes into sight. */
	$effect(() => {
		const [run, order, opened] = [selectedId, desk.selection.order, desk.selection.opened];
		if (run && order && opened !== undefined) void bringIntoSight(run);
	});

	/** The list may be left while its sizes still settle. */
	let isLeft = false;
	onDestroy(() => (isLeft = true));

	async function bringIntoSight(run: string): Promise<void> {
		await tick();
		if (!list || isLeft) return;
		const isMine = () => !isLeft && selectedId === run;
		await keepInSight(
			() => {
				const line = isMine() ? list?.querySelector<HTMLElement>(`article[data-run="${run}"]`) : null;
				if (line && desk.selection.walkedTo === run) {
					line.querySelector<HTMLElement>('.pick-run')?.focus({ preventScroll: true });
					desk.selection.walkedTo = null;
				}
				return line;
			},
			list,
			() => {
				if (isMine()) virtualizer?.scrollToIndex(selectedAt, { align: 'center' });
			}
		);
	}
</script>

<svelte:head><title>{view ? `${view.rig.name} · Runs` : 'Ruvak'}</title></svelte:head>

{#snippet line(row: Row)}
	{#if view}
		{#if row.kind === 'heading'}
			<h2 class="heading group">
				{row.group.words}
				{#if row.group.together}<span class="together">{row.group.together}</span>{/if}
			</h2>
		{:else}
			<RunRow
				state={view}
				run={row.run}
				selected={row.run === selected}
				grouped={desk.selection.order === 'place'}
			/>
		{/if}
	{/if}
{/snippet}

{#if !view}
	<div class="waiting">
		{#if rigs.data?.length === 0}
			<p>
				There is no rig here{#if desk.may('plan')}. Create one, or import a rig file, at
					<a href="#/rigs">Rigs</a>{/if}.
			</p>
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
{:else if !selected && !desk.may('plan')}
	<p class="waiting quiet">This rig has no runs yet.</p>
{:else if !selected}
	<NoRuns unit={view.rig.length_unit ?? 'm'} />
{:else}
	<div class="runs">
		<div class="above no-print"><ListTools state={view} count={runs.length} /></div>
		<h2 class="sr-only">Runs</h2>
		<RigFindings state={view} />
		<ListHead />
		<div class="list" bind:this={list}>
			{#if printing.current}
				{#each rows as row (row.key)}{@render line(row)}{/each}
			{:else if list}
				<Virtualizer
					bind:this={virtualizer}
					data={rows}
					getKey={(row) => row.key}
					scrollRef={list}
					keepMounted={selectedAt < 0 ? [] : [selectedAt]}
				>
					{#snippet children(row: Row)}{@render line(row)}{/snippet}
				</Virtualizer>
			{/if}
		</div>
	</div>
{/if}

<style>
	.runs {
		display: flex;
		flex-direction: column;
		flex: 1;
		min-height: 0;
		/* Mark, number, name, way, socket, levels, verdict, sentence: of every line and of the words over them. */
		--columns: 1rem 1.5rem minmax(5rem, 8.5rem) minmax(8rem, 13.5rem) minmax(4.5rem, 7.5rem) 150px 3.9rem
			minmax(0, 1fr);
	}
	.runs :global(.columns) {
		display: grid;
		align-items: center;
		column-gap: 0.9rem;
	}
	@media (min-width: 981px) {
		.runs :global(.columns) {
			grid-template-columns: var(--columns);
		}
	}
	.list {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		overflow-anchor: none;
	}
	.above {
		padding: 0.45rem 1.1rem;
		border-bottom: 1px solid var(--line);
	}
	.group {
		padding: 0.6rem 1.1rem 0.3rem;
	}
	.together {
		font-weight: 400;
		font-size: 0.8125rem;
		color: var(--dim);
		margin-left: 0.75rem;
		text-transform: none;
		letter-spacing: normal;
	}
	.waiting {
		padding: 2rem;
	}
	.waiting a {
		text-decoration: underline;
	}
	.placeholder {
		height: 2.1rem;
		margin-top: 0.3rem;
		background: var(--raised);
	}
	@media print {
		.runs {
			display: block;
		}
	}
</style>
