<!-- What a rig looks like without opening it: its verdict, and each run with where it goes and its worst finding. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { rigQuery } from '../../api/queries';
	import GradeMark from '../marks/GradeMark.svelte';
	import Tape from '../marks/Tape.svelte';

	let { rigId }: { rigId: string } = $props();
	const rig = createQuery(() => rigQuery(rigId));
	const GRADES = ['stop', 'fix', 'watch', 'clear'] as const;
	const summaries = $derived(new Map((rig.data?.analysis.runs ?? []).map((run) => [run.run, run])));
	const runs = $derived([...(rig.data?.rig.runs ?? [])].sort((a, b) => a.number - b.number));
	const devices = $derived(new Map((rig.data?.rig.gear ?? []).map((gear) => [gear.id, gear.name])));
</script>

<div class="glance" aria-live="polite">
	{#if rig.isError}
		<p>{rig.error.message}</p>
	{:else if !rig.data}
		<p class="quiet">Working it out…</p>
	{:else if runs.length === 0}
		<p class="quiet">No runs in it yet.</p>
	{:else}
		<p class="counts">
			{#each GRADES as grade (grade)}
				{@const count = rig.data.analysis.runs.filter((run) => run.grade === grade).length}
				{#if count > 0}<GradeMark {grade} words="{count} {grade}" />{/if}
			{/each}
		</p>
		<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
		<ol tabindex="0" aria-label="Runs of {rig.data.rig.name}">
			{#each runs as run (run.id)}
				{@const summary = summaries.get(run.id)}
				<li>
					<span class="figure quiet">{run.number}</span>
					<span class="name"><Tape name={run.name} size="small" /></span>
					<span class="into">{devices.get(summary?.into ?? '') ?? ''}</span>
					{#if summary}
						<GradeMark grade={summary.grade} />
						<span class="sentence" title={summary.sentence}>{summary.sentence}</span>
					{/if}
				</li>
			{/each}
		</ol>
	{/if}
</div>

<style>
	.glance {
		display: grid;
		gap: 0.5rem;
		padding: 0.7rem 0 0.3rem;
		min-width: 0;
	}
	.counts {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 1.2rem;
	}
	ol {
		max-height: 26rem;
		overflow-y: auto;
		border-top: 1px solid var(--line-strong);
	}
	li {
		display: grid;
		grid-template-columns: 2rem 11rem 11rem 4.6rem minmax(0, 1fr);
		gap: 0.7rem;
		align-items: center;
		padding: 0.22rem 0;
		border-bottom: 1px solid var(--line);
		font-size: 0.875rem;
	}
	.figure {
		text-align: right;
	}
	.into,
	.sentence {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.name {
		min-width: 0;
		overflow: hidden;
	}
	.into {
		color: var(--dim);
	}
	@media (max-width: 860px) {
		li {
			grid-template-columns: 2rem minmax(0, 1fr) auto;
		}
		.into {
			display: none;
		}
		.sentence {
			grid-column: 2 / -1;
		}
	}
</style>
