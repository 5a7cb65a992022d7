<!-- One run as a line would make it: from, to, pieces with where they come from, and the verdict. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import GradeMark from '../marks/GradeMark.svelte';
	import Strip from '../strip/Strip.svelte';

	let { run, drawn }: { run: Schemas['ReadRun']; drawn: boolean } = $props();

	/** The strip wants an analysed run; of a reading only the drawing and the worst finding are known. */
	const asRun = $derived({
		run: `reading-${run.run}`,
		drawing: run.drawing,
		findings: [run.finding],
		result: {
			run: run.run,
			sources: [],
			inputs: [],
			mixes: [],
			floating: [],
			phantom: [],
			cores: [],
			lead_currents: [],
			case_voltages: [],
			data: null
		},
		controls: [],
		notes: []
	});
</script>

<div class="run">
	<p><b>{run.from_words}</b> → <b>{run.to_words}</b></p>
	{#if drawn}<Strip run={asRun} unit="m" />{/if}
	<p class="pieces">
		{#each run.pieces as piece (piece.item)}
			<span class="piece" class:get={!piece.in_kit}>{piece.words}{piece.in_kit ? '' : ' — to get'}</span>
		{:else}
			<span class="piece">plugged straight in</span>
		{/each}
		{#if run.phantom_on}<span class="piece">phantom switched on</span>{/if}
		{#if run.reach_assumed && run.pieces.length > 0}<span class="quiet">no length given: a short one</span
			>{/if}
	</p>
	<p class="finding"><GradeMark grade={run.grade} /> <span>{run.finding.sentence}</span></p>
</div>

<style>
	.run {
		display: grid;
		gap: 0.35rem;
		font-size: 0.9375rem;
		min-width: 0;
	}
	.pieces {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 0.5rem;
		font-size: 0.8125rem;
	}
	.piece {
		border: 1px solid var(--line-strong);
		padding: 0.05rem 0.45rem;
	}
	.get {
		border-style: dashed;
	}
	.finding {
		display: flex;
		gap: 0.6rem;
		align-items: baseline;
		font-size: 0.875rem;
	}
</style>
