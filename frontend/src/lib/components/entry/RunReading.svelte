<!-- One run as a line would make it: from, to, its conductors and the verdict; by itself with its pieces. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { drawnRun } from '../../domain/drawn-run';
	import FindingLine from '../marks/FindingLine.svelte';
	import NeededPieces from './NeededPieces.svelte';
	import Strip from '../strip/Strip.svelte';

	let { run, drawn }: { run: Schemas['ReadRun']; drawn: boolean } = $props();

	const asRun = $derived(drawnRun(`reading-${run.run}`, run.drawing, run.finding));
</script>

<div class="run">
	<p><b>{run.from_words}</b> → <b>{run.to_words}</b></p>
	{#if drawn}<Strip run={asRun} unit="m" />{/if}
	<FindingLine finding={run.finding} />
	{#if drawn}<NeededPieces runs={[run]} />{/if}
	{#if run.phantom_on || run.switched.length > 0 || (run.reach_assumed && run.pieces.length > 0)}
		<p class="quiet notes">
			{#if run.phantom_on}Phantom is switched on with it.{/if}
			{#if run.switched.length > 0}Set with it: {run.switched.join('; ')}.{/if}
			{#if run.reach_assumed && run.pieces.length > 0}No length was given: a short one is planned.{/if}
		</p>
	{/if}
</div>

<style>
	.run {
		display: grid;
		gap: 0.35rem;
		font-size: 0.9375rem;
		min-width: 0;
	}
	.notes {
		font-size: 0.8125rem;
	}
</style>
