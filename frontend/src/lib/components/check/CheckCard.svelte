<!-- One run: where to make a sound, where to listen, what arrives; three large answers within a thumb's reach. -->
<script lang="ts">
	import { Check, ChevronLeft, ChevronRight, SkipForward, X } from '@lucide/svelte';
	import type { Schemas } from '../../api/client';
	import {
		inWords,
		STATE_WORDS,
		stateOf,
		type Answer,
		type Card,
		type CheckedRun,
		type NewEntry,
		type Standing
	} from '../../domain/check';
	import Expect from './Expect.svelte';
	import Tape from '../marks/Tape.svelte';
	import StateMark from './StateMark.svelte';
	import Wrong from './Wrong.svelte';

	let {
		run,
		card,
		standing,
		lastTime,
		place,
		may,
		undo,
		onanswer,
		onmended,
		onundo,
		onstep
	}: {
		run: CheckedRun;
		card: Card | undefined;
		standing: Standing | undefined;
		lastTime: Schemas['LastTime'] | undefined;
		place: string;
		may: boolean;
		undo: { words: string; answer: Answer | null } | null;
		onanswer: (answer: Answer, more?: Partial<NewEntry>) => void;
		onmended: (more: Partial<NewEntry>) => void;
		onundo: () => void;
		onstep: (by: number) => void;
	} = $props();
	let wrong = $state(false);
	const stands = $derived(stateOf(standing));
	const heard = $derived(
		standing?.answer === 'wrong' && standing.heard ? `: ${inWords(standing.heard).toLowerCase()}` : ''
	);
</script>

<article class="card" aria-label="Run {run.number}, {run.name}">
	<div class="inside">
		<header>
			<button type="button" class="btn-icon" aria-label="Run before" onclick={() => onstep(-1)}
				><ChevronLeft size={22} /></button
			>
			<div class="name">
				<span class="figure">{run.number}</span>
				<Tape name={run.name} size="large" />
				<span class="quiet figure place">{place}</span>
			</div>
			<button type="button" class="btn-icon" aria-label="Run after" onclick={() => onstep(1)}
				><ChevronRight size={22} /></button
			>
		</header>
		{#if stands !== 'open'}
			<p class="state">
				<StateMark state={stands} />
				{STATE_WORDS[stands]}{heard}{standing?.words ? `: ${standing.words}` : ''}
			</p>
		{/if}
		{#if lastTime}
			<p class="last">
				Last time ({lastTime.on}): {lastTime.words}{lastTime.mended ? '; good afterwards' : ''}
			</p>
		{/if}
		{#if wrong}
			<!-- Its room is needed for what is heard. -->
		{:else if card}
			<Expect {card} />
		{:else}
			<p class="quiet">What to expect is being computed…</p>
		{/if}
	</div>
	{#if may && wrong}
		<Wrong
			{card}
			oncancel={() => (wrong = false)}
			onsave={(more) => onanswer('wrong', more)}
			onmended={(more) => onmended(more)}
		/>
	{:else if may}
		<div class="answers">
			{#if undo}
				<p class="undo">
					{undo.words}: {undo.answer}.
					<button type="button" class="in-text" onclick={onundo}>Take it back</button>
				</p>
			{/if}
			<button type="button" class="answer good" onclick={() => onanswer('good')}
				><Check size={30} aria-hidden="true" />Good</button
			>
			<button type="button" class="answer wrong" onclick={() => (wrong = true)}
				><X size={30} aria-hidden="true" />Wrong</button
			>
			<button type="button" class="answer" onclick={() => onanswer('skipped')}
				><SkipForward size={26} aria-hidden="true" />Skip</button
			>
		</div>
	{/if}
</article>

<style>
	.card {
		position: sticky;
		top: 0.5rem;
		display: flex;
		flex-direction: column;
		background: var(--panel);
		border: 1px solid var(--line);
	}
	/* On a phone the answers stand where the thumb is. */
	@media (max-width: 720px) {
		.card {
			position: static;
			min-height: calc(100dvh - 15rem);
		}
	}
	.inside {
		flex: 1;
		align-content: start;
		display: grid;
		gap: 0.8rem;
		padding: 0.9rem 1rem 1.2rem;
	}
	header {
		display: flex;
		align-items: center;
		justify-content: space-between;
		gap: 0.5rem;
	}
	header button {
		display: grid;
		place-items: center;
		min-width: 44px;
		min-height: 44px;
		color: var(--dim);
	}
	.name {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		justify-content: center;
		gap: 0.3rem 0.6rem;
		font-size: 1.3rem;
	}
	.place {
		flex-basis: 100%;
		text-align: center;
		font-size: 0.85rem;
	}
	.state {
		display: flex;
		align-items: center;
		gap: 0.4rem;
	}
	.last {
		padding: 0.4rem 0.6rem;
		background: var(--fix-wash);
		border-left: 3px solid var(--fix);
	}
	.answers {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.6rem;
		padding: 0.8rem 1rem 1rem;
		background: var(--panel);
		border-top: 1px solid var(--line);
		position: sticky;
		bottom: 0;
	}
	.undo {
		grid-column: 1 / -1;
		color: var(--dim);
	}
	.answer {
		display: flex;
		align-items: center;
		justify-content: center;
		gap: 0.5rem;
		min-height: 4.2rem;
		font-size: 1.25rem;
		font-weight: 600;
		border: 2px solid var(--line-strong);
		background: var(--raised);
	}
	.good {
		border-color: var(--clear);
		background: var(--clear-wash);
	}
	.wrong {
		border-color: var(--stop);
		background: var(--stop-wash);
	}
	.answer:last-child {
		grid-column: 1 / -1;
		min-height: 3rem;
		font-size: 1.05rem;
		font-weight: 400;
	}
</style>
