<!-- Beside the runs: what to do about the selected one. -->
<script lang="ts">
	import type { RigView } from '../../api/rig-view';
	import type { Schemas } from '../../api/client';
	import { worstOf } from '../../domain/grades';
	import GradeMark from '../marks/GradeMark.svelte';
	import Remedies from './Remedies.svelte';

	let { state, run }: { state: RigView; run: Schemas['RunAnalysis'] } = $props();

	const named = $derived((state.rig.runs ?? []).find((one) => one.id === run.run));
	const worst = $derived(worstOf(run));
	/** What no lead or box on this run can make right. */
	const hazards = $derived(
		(state.analysis.findings ?? []).filter((one) => one.grade === 'stop' && one.runs.includes(run.run))
	);
	/** Each once, however many findings share it. */
	const cautions = $derived([...new Set(run.findings.map((one) => one.caution ?? '').filter(Boolean))]);
</script>

<aside class="bench no-print" aria-label="What to do about {named?.name ?? run.run}">
	{#each hazards as one (one.code + one.subject)}
		<div class="hazard">
			<GradeMark grade={one.grade} />
			<p>{one.sentence}</p>
			<p>{one.advice}</p>
			<p class="quiet">Until then nothing is offered here.</p>
		</div>
	{/each}
	{#if worst === 'clear'}
		<p class="advice">Nothing to do here. Change something on the run to see what would follow.</p>
	{:else}
		<p class="advice">{run.findings[0]?.advice}</p>
		{#each cautions as caution (caution)}<p class="caution">{caution}</p>{/each}
		{#if hazards.length === 0}<Remedies {state} {run} />{/if}
	{/if}
	{#if (run.notes ?? []).length > 0}
		<section class="house" aria-label="House rules">
			<h3 class="heading">House rule</h3>
			{#each run.notes ?? [] as note (note.code)}<p class="quiet">{note.sentence}</p>{/each}
		</section>
	{/if}
</aside>

<style>
	.bench {
		display: grid;
		align-content: start;
		gap: 0.9rem;
		padding: 0.2rem 1rem 1.3rem;
		min-width: 0;
		/* It goes along, so that a remedy far down still previews on a strip in sight. */
		position: sticky;
		top: 0;
		max-height: calc(100dvh - 12rem);
		overflow-y: auto;
	}
	.hazard {
		display: grid;
		gap: 0.4rem;
		padding: 0.7rem 0.8rem;
		font-size: 0.9375rem;
		border-left: 3px solid var(--stop);
		background: var(--stop-wash);
	}
	.caution {
		font-size: 0.875rem;
		border-left: 2px solid var(--watch);
		padding-left: 0.6rem;
	}
	.house {
		display: grid;
		gap: 0.35rem;
		font-size: 0.875rem;
	}
	@media (max-width: 980px) {
		.bench {
			position: static;
			max-height: none;
		}
	}
</style>
