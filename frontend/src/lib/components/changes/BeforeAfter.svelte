<!-- What one change did to the runs: each as it was and as it became, by its strip and what was to be said of it. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { editShownQuery } from '../../api/queries';
	import { drawnRun } from '../../domain/drawn-run';
	import FindingLine from '../marks/FindingLine.svelte';
	import Tape from '../marks/Tape.svelte';
	import Strip from '../strip/Strip.svelte';

	let { rigId, editId, unit }: { rigId: string; editId: number; unit: 'm' | 'ft' } = $props();
	const shown = createQuery(() => editShownQuery(rigId, editId));
</script>

<div class="shown" aria-live="polite">
	{#if shown.isError}
		<p>{shown.error.message}</p>
	{:else if !shown.data}
		<p class="quiet">Working out both states…</p>
	{:else}
		{#each shown.data as change (change.run)}
			<section aria-label={change.name}>
				<Tape name={change.name} size="small" />
				<div class="pair">
					{#each [{ title: 'Before', then: change.before }, { title: 'After', then: change.after }] as side (side.title)}
						<div class="side">
							<h4>{side.title}</h4>
							{#if side.then}
								<FindingLine finding={side.then.finding} />
								<Strip
									run={drawnRun(
										`${side.title}-${editId}-${change.run}`,
										side.then.drawing,
										side.then.finding
									)}
									{unit}
								/>
							{:else}
								<p class="quiet">{side.title === 'Before' ? 'Not there yet.' : 'Deleted.'}</p>
							{/if}
						</div>
					{/each}
				</div>
			</section>
		{:else}
			<p class="quiet">No run sounds or is wired differently for it.</p>
		{/each}
	{/if}
</div>

<style>
	.shown {
		grid-column: 1 / -1;
		display: grid;
		gap: 0.9rem;
		padding: 0.6rem 0 0.9rem;
		min-width: 0;
	}
	section {
		display: grid;
		gap: 0.4rem;
		justify-items: start;
		min-width: 0;
	}
	.pair {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(26rem, 100%), 1fr));
		gap: 0.8rem 1.5rem;
		width: 100%;
		min-width: 0;
	}
	.side {
		display: grid;
		gap: 0.3rem;
		align-content: start;
		min-width: 0;
		border-top: 1px solid var(--line-strong);
		padding-top: 0.4rem;
	}
	h4 {
		font-size: 0.8125rem;
		color: var(--dim);
	}
</style>
