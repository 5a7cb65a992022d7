<!-- One run: number, name, strip, ladder, its worst finding in a sentence, and what can be changed in place. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { worstOf } from '../../domain/grades';
	import { inputName, keyOf, shownInput } from '../../domain/inputs';
	import { levelsOf } from '../../domain/ladder';
	import { getDesk } from '../../state/desk.svelte';
	import InPlace from '../controls/InPlace.svelte';
	import Pieces from '../pieces/Pieces.svelte';
	import Ladder from '../ladder/Ladder.svelte';
	import GradeMark from '../marks/GradeMark.svelte';
	import Tape from '../marks/Tape.svelte';
	import Strip from './Strip.svelte';

	interface Props {
		rig: Schemas['Rig'];
		run: Schemas['RunAnalysis'];
		selected: boolean;
	}
	let { rig, run, selected }: Props = $props();
	const desk = getDesk();

	const named = $derived((rig.runs ?? []).find((one) => one.id === run.run));
	const preview = $derived(selected && desk.preview?.after.run === run.run ? desk.preview : null);
	const shown = $derived(preview?.after ?? run);
	const kept = $derived(new Set(run.drawing.pieces.map((piece) => piece.owner)));
	const input = $derived(shownInput(run, selected ? desk.inputKey : null));
	const then = $derived(preview && input ? shownInput(preview.after, keyOf(input)) : undefined);
	const now = $derived(levelsOf(input));
	const unpowered = $derived(run.findings.some((one) => one.code === 'phantom_missing'));
	const humDbu = $derived(input?.loudspeaker ? null : ((then ?? input)?.hum?.weighted_dbu ?? null));
	const after = $derived(levelsOf(then));
</script>

<article class="run {worstOf(run)}" class:selected aria-current={selected} data-run={run.run}>
	<header>
		<button type="button" class="pick-run" aria-pressed={selected} onclick={() => desk.select(run.run)}>
			<span class="number figure">{named?.number}</span>
			<Tape name={named?.name ?? run.run} size="large" />
		</button>
		<div class="saying" aria-live="polite">
			{#if preview}
				<span class="previewing">With “{preview.title}”, not applied yet:</span>
			{/if}
			{#each shown.findings as finding, index (index)}
				<p class="finding">
					<GradeMark grade={finding.grade} />
					<span>{finding.sentence}</span>
				</p>
			{/each}
		</div>
	</header>
	<div class="strip-place">
		<Strip run={shown} unit={rig.length_unit ?? 'm'} ghost={preview !== null} {kept} />
	</div>
	{#if now && input && !run.result.data}
		<div class="ladder-place">
			<div class="along">
				{#if run.result.inputs.length > 1}<p class="of-input">{inputName(rig, run, input)}</p>{/if}
				<Ladder
					{now}
					{after}
					{humDbu}
					{unpowered}
					amplified={input.loudspeaker !== null}
					height={selected ? 210 : 150}
				/>
			</div>
		</div>
	{/if}
	{#if selected}
		<div class="controls-place"><InPlace {rig} {run} /></div>
		<div class="pieces-place">
			{#key run.run}<Pieces {rig} {run} />{/key}
		</div>
	{/if}
</article>

<style>
	.run {
		display: grid;
		grid-template:
			'head head' auto 'strip ladder' auto 'controls controls' auto 'pieces pieces' auto / minmax(0, 1fr)
			auto;
		align-items: center;
		gap: 0.9rem 1rem;
		padding: 1rem 1.25rem 1.1rem;
		scroll-margin-top: 3.2rem;
		border-left: 4px solid transparent;
		border-bottom: 1px solid var(--line);
	}
	.selected {
		background: var(--panel);
	}
	.selected.stop {
		border-left-color: var(--stop);
	}
	.selected.fix {
		border-left-color: var(--fix);
	}
	.selected.watch {
		border-left-color: var(--watch);
	}
	.selected.clear {
		border-left-color: var(--clear);
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: flex-start;
		gap: 0.5rem 1.1rem;
	}
	.pick-run {
		display: inline-flex;
		align-items: center;
		gap: 0.7rem;
		padding: 2px;
		min-width: 0;
		max-width: 100%;
	}
	.number {
		color: var(--dim);
		min-width: 1.5ch;
	}
	.saying {
		flex: 1 1 22rem;
		font-size: 1.0625rem;
		line-height: 1.38;
	}
	.finding {
		display: flex;
		gap: 0.7rem;
		align-items: baseline;
	}
	.previewing {
		color: var(--accent);
		font-size: 0.875rem;
	}
	header {
		grid-area: head;
	}
	.strip-place {
		grid-area: strip;
		min-width: 0;
	}
	.ladder-place {
		grid-area: ladder;
		align-self: stretch;
	}
	/* A row of loudspeakers is taller than the screen: the ladder goes along, beside its strip. */
	.along {
		position: sticky;
		top: 3.5rem;
	}
	.of-input {
		max-width: 168px;
		font-size: 0.8125rem;
		color: var(--dim);
	}
	.pieces-place {
		grid-area: pieces;
		min-width: 0;
	}
	.controls-place {
		min-width: 0;
		grid-area: controls;
		min-width: 0;
	}
	@media (max-width: 720px) {
		.run {
			grid-template: 'head head' auto 'strip strip' auto 'ladder controls' auto 'pieces pieces' auto / auto minmax(
					0,
					1fr
				);
			padding: 0.9rem 0.9rem 1rem;
		}
	}
</style>
