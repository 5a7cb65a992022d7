<!-- The opened run: what is wrong, its strip and ladder, what can be changed, its figures; beside it what cures it. -->
<script lang="ts">
	import type { RigView } from '../../api/rig-view';
	import type { Schemas } from '../../api/client';
	import { humOf, inputName, isUnpowered, keyOf, shownInput } from '../../domain/inputs';
	import { levelsOf } from '../../domain/ladder';
	import { getDesk } from '../../state/desk.svelte';
	import Bench from '../bench/Bench.svelte';
	import Details from '../bench/Details.svelte';
	import InPlace from '../controls/InPlace.svelte';
	import NextFrame from '../controls/NextFrame.svelte';
	import Ladder from '../ladder/Ladder.svelte';
	import Only from '../frame/Only.svelte';
	import GradeMark from '../marks/GradeMark.svelte';
	import RunFacts from './RunFacts.svelte';
	import Pieces from '../pieces/Pieces.svelte';
	import Strip from '../strip/Strip.svelte';

	interface Props {
		state: RigView;
		run: Schemas['RunAnalysis'];
		/** What is wrong, where, and what cures it, without what can be changed and the figures. */
		brief: boolean;
	}
	let { state, run, brief }: Props = $props();
	const desk = getDesk();

	const rig = $derived(state.rig);
	const named = $derived((rig.runs ?? []).find((one) => one.id === run.run));
	const preview = $derived(desk.preview.of(run.run, state.version));
	const ahead = $derived(desk.sync.ahead?.run === run.run ? desk.sync.ahead.drawing : null);
	const shown = $derived(ahead ? { ...run, drawing: ahead } : (preview?.after ?? run));
	const kept = $derived(new Set(run.drawing.pieces.map((piece) => piece.owner)));
	const input = $derived(shownInput(run, desk.selection.inputKey));
	const then = $derived(preview && input ? shownInput(preview.after, keyOf(input)) : undefined);
	const now = $derived(levelsOf(input));
	const unpowered = $derived(isUnpowered(run));
	const humDbu = $derived(humOf(then ?? input));
	const after = $derived(levelsOf(then));
</script>

<div class="opened" class:short={brief}>
	<div class="own">
		<div class="saying" aria-live="polite" aria-busy={ahead !== null}>
			{#if ahead}
				<p class="quiet">Computing the figures…</p>
			{:else if preview}
				<span class="previewing">With “{preview.title}”, not applied yet:</span>
			{/if}
			{#each ahead ? [] : shown.findings as finding, index (index)}
				<p class="finding">
					<GradeMark grade={finding.grade} words={shown.findings.length > 1 || preview ? undefined : ''} />
					<span>{finding.sentence}</span>
				</p>
			{/each}
		</div>
		<div class="drawn">
			<div class="strip-place">
				<Strip run={shown} unit={rig.length_unit ?? 'm'} ghost={preview !== null} {kept} />
			</div>
			{#if now && input && !run.result.data}
				<div class="ladder-place" class:computing={ahead !== null}>
					<div class="along">
						{#if run.result.inputs.length > 1}<p class="of-input">{inputName(rig, run, input)}</p>{/if}
						<Ladder {now} {after} {humDbu} {unpowered} amplified={input.loudspeaker !== null} height={200} />
					</div>
				</div>
			{/if}
		</div>
		{#if brief}
			<p class="brief">
				<button type="button" class="btn preset-tonal" onclick={() => desk.selection.select(run.run)}
					>Figures and settings of this run</button
				>
			</p>
		{:else}<NextFrame>
				<InPlace {rig} {run} />
				<NextFrame>
					<Only may="record"
						>{#key run.run}<Pieces {rig} {run} />{/key}</Only
					>
					{#if named}<Only may="plan"><RunFacts {rig} run={named} /></Only>{/if}
					<NextFrame>
						<div class="details"><Details {rig} {run} after={preview?.after ?? null} /></div>
					</NextFrame>
				</NextFrame>
			</NextFrame>{/if}
	</div>
	<Bench {state} {run} />
</div>

<style>
	.opened {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 22.5rem;
	}
	.own {
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		align-content: start;
		gap: 1rem;
		padding: 0.2rem 1.1rem 1.3rem 1rem;
		min-width: 0;
	}
	.saying {
		font-size: 1rem;
		line-height: 1.38;
		max-width: 60rem;
	}
	.finding {
		display: flex;
		gap: 0.6rem;
		align-items: baseline;
	}
	.previewing {
		color: var(--accent);
		font-size: 0.875rem;
	}
	.drawn {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: 1rem;
		align-items: center;
	}
	.strip-place {
		min-width: 0;
	}
	.ladder-place {
		align-self: stretch;
	}
	.computing {
		opacity: 0.35;
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
	.details {
		border-top: 1px solid var(--line);
		padding-top: 1.1rem;
	}
	@media (max-width: 980px) {
		/* On a phone what is wrong and what cures it come first; the levels are among the figures. */
		.short .ladder-place {
			display: none;
		}
		.opened {
			display: block;
		}
	}
	@media (max-width: 720px) {
		.own {
			padding: 0.2rem 0.9rem 1.2rem;
		}
		.drawn {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
