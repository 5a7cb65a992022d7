<!-- Everything anyone did to this rig, day by day, newest first, with the runs it concerned, before and after. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import BeforeAfter from '../../lib/components/changes/BeforeAfter.svelte';
	import AsBuilt from '../../lib/components/changes/AsBuilt.svelte';
	import { historyQuery, rigQuery } from '../../lib/api/queries';
	import Tape from '../../lib/components/marks/Tape.svelte';
	import { addressOf } from '../../lib/domain/address';
	import { byDay } from '../../lib/domain/history';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const rig = createQuery(() => ({
		...rigQuery(desk.selection.rigId ?? ''),
		enabled: desk.selection.rigId !== null
	}));
	const lines = createQuery(() => ({
		...historyQuery(desk.selection.rigId ?? '', rig.data?.version ?? ''),
		enabled: rig.data !== undefined
	}));
	const WORDS: Record<string, string> = { edit: '', undo: 'Undone: ', redo: 'Redone: ' };
	const AS_BUILT = { open: 'as built', kept: 'as built, kept', restored: 'as built, plan restored' };
	const MOST = 3;
	const queries = useQueryClient();
	const open = $derived((lines.data ?? []).filter((line) => line.as_built === 'open'));
	const days = $derived(byDay(lines.data ?? []));
	const names = $derived(new Map((rig.data?.rig.runs ?? []).map((run) => [run.id, run.name])));
	/** The line whose runs are shown before and after. */
	let opened = $state<number | null>(null);
	/** The rig may stand otherwise now, and the line in its history does. */
	async function settled(): Promise<void> {
		await desk.sync.watch();
		await queries.invalidateQueries({ queryKey: ['history'] });
	}
	const date = (moment: string): string => new Date(moment).toLocaleDateString([], { dateStyle: 'full' });
	const time = (moment: string): string => new Date(moment).toLocaleTimeString([], { timeStyle: 'short' });
</script>

<svelte:head><title>{rig.data ? `${rig.data.rig.name} · Changes` : 'Ruvak'}</title></svelte:head>

<section class="changes">
	<h2>Changes</h2>
	{#if open.length > 0}
		<section class="as-built" aria-label="Done on stage, not in the plan">
			<h3 class="heading">Done on stage, not in the plan</h3>
			{#each open as line (line.id)}
				<AsBuilt {line} rigId={rig.data?.rig.id ?? ''} onsettled={settled} />
			{/each}
		</section>
	{/if}
	{#if lines.isError}
		<p>The changes could not be fetched. {lines.error.message}</p>
	{:else if !lines.data}
		<p class="quiet">Fetching the changes…</p>
	{:else if lines.data.length === 0}
		<p class="quiet">
			Nobody has changed anything yet. Whatever you do to the rig is listed here, and U takes your own latest
			back.
		</p>
	{:else}
		{#each days as day (day.key)}
			<section aria-label={date(day.at)}>
				<h3 class="heading">{date(day.at)}</h3>
				<ol>
					{#each day.lines as line (line.id)}
						<li class:undone={line.undone} class:other={!line.own}>
							<span class="figure quiet">{time(line.made_at)}</span>
							<span class="who">{line.own ? 'you' : line.person}</span>
							<span class="what"
								>{WORDS[line.kind]}{line.label}{line.undone && line.as_built !== 'restored'
									? ' (undone)'
									: ''}{line.as_built ? ` (${AS_BUILT[line.as_built]})` : ''}</span
							>
							<span class="runs">
								{#each line.runs.slice(0, MOST) as id (id)}
									{@const name = names.get(id)}
									{#if name}
										<a href="#{addressOf({ station: 'runs', rig: rig.data?.rig.id ?? null, run: id })}"
											><Tape {name} size="small" /></a
										>
									{:else}<span class="quiet">{id}, deleted</span>{/if}
								{/each}
								{#if line.runs.length > MOST}<small>and {line.runs.length - MOST} more</small>{/if}
							</span>
							<button
								type="button"
								class="show"
								aria-expanded={opened === line.id}
								onclick={() => (opened = opened === line.id ? null : line.id)}
								>{opened === line.id ? 'Close' : 'Compare'}<span class="sr-only">
									before and after: {line.label}</span
								></button
							>
							{#if opened === line.id && rig.data}
								<BeforeAfter
									rigId={rig.data.rig.id}
									editId={line.id}
									unit={rig.data.rig.length_unit ?? 'm'}
								/>
							{/if}
						</li>
					{/each}
				</ol>
			</section>
		{/each}
	{/if}
</section>

<style>
	.changes {
		padding: 1.25rem 1.5rem;
		display: grid;
		gap: 0.9rem;
		max-width: 80rem;
	}
	h2 {
		font-size: 1.4rem;
	}
	.as-built {
		padding: 0.8rem 1rem;
		background: var(--watch-wash);
		border-left: 4px solid var(--watch);
	}
	section section {
		display: grid;
		gap: 0.2rem;
	}
	li {
		display: grid;
		grid-template-columns: 5.5rem 9rem minmax(0, 1fr) minmax(0, 18rem) 5rem;
		gap: 1rem;
		align-items: baseline;
		padding: 0.45rem 0 0.45rem 0.7rem;
		border-bottom: 1px solid var(--line);
		border-left: 3px solid transparent;
	}
	/* What others did is what one has not seen yet. */
	.other {
		border-left-color: var(--watch);
	}
	.who {
		color: var(--dim);
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.runs {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
		align-items: center;
	}
	.show {
		justify-self: end;
		min-height: 24px;
		font-size: 0.8125rem;
		color: var(--dim);
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	.show:hover {
		color: var(--ink);
	}
	small {
		color: var(--dim);
	}
	.undone {
		color: var(--dim);
	}
	@media (max-width: 720px) {
		.changes {
			padding: 1rem;
		}
		li {
			grid-template-columns: 1fr auto;
			gap: 0.35rem 1rem;
		}
		.what {
			grid-column: 1 / -1;
		}
		.runs {
			grid-column: 1;
		}
	}
</style>
