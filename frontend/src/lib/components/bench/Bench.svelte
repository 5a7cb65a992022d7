<!-- Beside the runs: what to do about the selected one. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { worstOf } from '../../domain/grades';
	import Tape from '../marks/Tape.svelte';
	import Remedies from './Remedies.svelte';

	let { state, run }: { state: Schemas['RigState']; run: Schemas['RunAnalysis'] } = $props();

	const named = $derived((state.rig.runs ?? []).find((one) => one.id === run.run));
	const worst = $derived(worstOf(run));
	/** Each once, however many findings share it. */
	const cautions = $derived([...new Set(run.findings.map((one) => one.caution ?? '').filter(Boolean))]);
</script>

<aside class="bench no-print" aria-label="What to do about {named?.name ?? run.run}">
	<header>
		<span class="figure quiet">{named?.number}</span>
		<Tape name={named?.name ?? run.run} />
	</header>
	{#if worst === 'clear'}
		<p class="advice">Nothing to do here. Change something on the run to see what would follow.</p>
	{:else}
		<p class="advice">{run.findings[0]?.advice}</p>
		{#each cautions as caution (caution)}<p class="caution">{caution}</p>{/each}
		<Remedies {state} {run} />
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
		padding: 1.1rem 1.2rem 2rem;
		background: var(--panel);
		border-left: 1px solid var(--line);
		min-width: 0;
		overflow-y: auto;
	}
	header {
		display: flex;
		align-items: center;
		gap: 0.7rem;
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
			border-left: 0;
		}
	}
</style>
