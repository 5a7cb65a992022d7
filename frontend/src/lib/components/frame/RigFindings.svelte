<!-- What is to say about the whole rig at once: a hazard or a limit no single run can tell, above the runs. -->
<script lang="ts">
	import type { RigView } from '../../api/rig-view';
	import { nameOf } from '../../domain/names';
	import { getDesk } from '../../state/desk.svelte';
	import GradeMark from '../marks/GradeMark.svelte';

	let { state }: { state: RigView } = $props();
	const desk = getDesk();

	/** Runs named one by one. */
	const NAMED = 6;
	const findings = $derived(state.analysis.findings ?? []);
	const runName = (id: string): string =>
		(state.rig.runs ?? []).find((run) => run.id === id)?.name ?? nameOf(state.rig, id);
</script>

{#if findings.length > 0}
	<section class="of-rig" aria-label="About the whole rig">
		{#each findings as one (one.code + one.subject)}
			<article class={one.grade}>
				<GradeMark grade={one.grade} />
				<div>
					<p><b>{one.sentence}</b></p>
					<p>{one.advice}</p>
					{#if one.runs.length > 0}
						<p class="quiet">
							Touches {one.runs.length === 1 ? 'one run' : `${one.runs.length} runs`}:
							{#each one.runs.slice(0, NAMED) as run (run)}
								<button type="button" class="name" onclick={() => desk.select(run)}>{runName(run)}</button>
							{/each}
							{#if one.runs.length > NAMED}and {one.runs.length - NAMED} more{/if}
						</p>
					{/if}
				</div>
			</article>
		{/each}
	</section>
{/if}

<style>
	.of-rig {
		display: grid;
		gap: 1px;
	}
	article {
		display: grid;
		grid-template-columns: 4.2rem minmax(0, 1fr);
		align-items: start;
		gap: 0.8rem;
		padding: 0.8rem 1.25rem;
		font-size: 0.9375rem;
		border-left: 3px solid var(--watch);
		background: var(--watch-wash);
	}
	article > div {
		display: grid;
		gap: 0.35rem;
		max-width: 46rem;
	}
	.stop {
		border-color: var(--stop);
		background: var(--stop-wash);
	}
	.fix {
		border-color: var(--fix);
		background: var(--fix-wash);
	}
	.name {
		border-bottom: 1px dotted var(--line-strong);
		margin-left: 0.4rem;
		min-height: 1.5rem;
	}
</style>
