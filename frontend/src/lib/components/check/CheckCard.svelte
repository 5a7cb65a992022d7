<!-- One run: where to make a sound, where to listen, what arrives; three large answers within a thumb's reach. -->
<script lang="ts">
	import { ChevronLeft, ChevronRight } from '@lucide/svelte';
	import type { Schemas } from '../../api/client';
	import {
		inWords,
		STATE_WORDS,
		stateOf,
		type Answer,
		type AnsweredLast,
		type Card,
		type CheckedRun,
		type NewEntry,
		type Standing
	} from '../../domain/check';
	import type { Role } from '../../domain/working';
	import Answers from './Answers.svelte';
	import Expect from './Expect.svelte';
	import Photos from './Photos.svelte';
	import StepCard from './StepCard.svelte';
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
		addressOfRun,
		role,
		there,
		rig,
		photos,
		steady,
		onwriting,
		onphoto,
		onworking,
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
		undo: AnsweredLast | null;
		/** Where its wiring, figures and remedies are; null while there is no network. */
		addressOfRun: (run: string) => string | null;
		role: Role;
		/** Who else is at it now. */
		there: readonly string[];
		rig: string;
		/** Of this device, not sent yet. */
		photos: ReadonlyMap<string, Blob>;
		steady: boolean;
		/** Whether what is wrong is being said. */
		onwriting: (wrong: boolean) => void;
		onphoto: (picture: Blob) => Promise<string>;
		onworking: () => void;
		onanswer: (answer: Answer, more?: Partial<NewEntry>) => void;
		onmended: (more: Partial<NewEntry>) => void;
		onundo: () => void;
		onstep: (by: number) => void;
	} = $props();
	let wrong = $state(false);
	$effect(() => {
		onwriting(wrong);
		return () => onwriting(false);
	});
	const stands = $derived(stateOf(standing));
	const heard = $derived(
		standing?.answer === 'wrong' && standing.heard ? `: ${inWords(standing.heard).toLowerCase()}` : ''
	);
</script>

<article class="card" aria-label={run.step ? run.name : `Run ${run.number}, ${run.name}`}>
	<div class="inside">
		<header>
			<button type="button" class="btn-icon" aria-label="Run before" onclick={() => onstep(-1)}
				><ChevronLeft size={22} /></button
			>
			<div class="name">
				{#if !run.step}<span class="figure">{run.number}</span>{/if}
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
				{#if stands === 'wrong' && !run.step && undo?.wrong !== run.run && addressOfRun(run.run)}<a
						class="in-text"
						href={addressOfRun(run.run)}>Open the run</a
					>{/if}
				<Photos {rig} photos={standing?.photos ?? []} here={photos} />
			</p>
		{/if}
		{#if lastTime}
			<p class="last">
				Last time ({lastTime.on}): {lastTime.words}{lastTime.mended ? '; good afterwards' : ''}
			</p>
		{/if}
		{#if there.length > 0}
			<p class="there" role="status">{there.join(', ')} {there.length === 1 ? 'is' : 'are'} at it now.</p>
		{/if}
		{#if wrong}
			<!-- Its room is needed for what is heard. -->
		{:else if run.step}
			<StepCard step={run.step} />
		{:else if card}
			<Expect {card} meter={role !== 'stage'} />
		{:else}
			<p class="quiet">What to expect is being computed…</p>
		{/if}
	</div>
	{#if may && wrong}
		<Wrong
			{card}
			{onphoto}
			next={run.step ? 'Still wrong, go on' : 'Still wrong, next run'}
			oncancel={() => (wrong = false)}
			onsave={(more) => onanswer('wrong', more)}
			onmended={(more) => onmended(more)}
		/>
	{:else if may}
		<Answers
			{role}
			{steady}
			{undo}
			address={undo?.wrong ? addressOfRun(undo.wrong) : null}
			{onworking}
			{onundo}
			onanswer={(given) => onanswer(given)}
			onwrong={() => (wrong = true)}
		/>
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
	.there {
		padding: 0.4rem 0.6rem;
		border-left: 3px solid var(--accent);
	}
</style>
