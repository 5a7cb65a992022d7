<!-- Connecting in a safe order, shared among everybody there; and taking down again. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { router } from 'svelte-spa-router';
	import NoNetwork from '../../lib/components/check/NoNetwork.svelte';
	import StepRow from '../../lib/components/hook-up/StepRow.svelte';
	import PrintSheets from '../../lib/components/print/PrintSheets.svelte';
	import { placeOf } from '../../lib/domain/address';
	import { newEntry } from '../../lib/domain/check';
	import { byPhase, countWords, PHASES, stepStates, waitingFor, type Step } from '../../lib/domain/hook-up';
	import { CheckBook } from '../../lib/state/check-book.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const rigId = placeOf(router.location)?.rig ?? desk.selection.rigId ?? '';
	const book = new CheckBook(
		rigId,
		untrack(() => desk.person)
	);
	const plan = $derived(book.check?.hookUp);
	const may = $derived(desk.mayRecord);
	let way = $state<'up' | 'down'>('up');
	const steps = $derived(plan?.[way] ?? []);
	const states = $derived(stepStates(book.entries));
	const next = $derived(steps.find((step) => !states.has(step.id))?.id ?? null);

	onMount(() => {
		void book.start();
		return () => book.stop();
	});

	const say = (step: Step, given: 'good' | 'skipped', note = ''): void =>
		void book.add(
			newEntry('step', {
				step: step.id,
				run: step.run,
				answer: given,
				things: step.things.slice(0, 20),
				words: note
			})
		);

	function takeBack(step: Step): void {
		const entry = states.get(step.id)?.entry;
		if (entry) void book.add(newEntry('step', { step: step.id, corrects: entry }));
	}
</script>

<svelte:head><title>Hook-up · Ruvak</title></svelte:head>

<section class="view">
	<header>
		<div>
			<h2>
				Hook-up{#if book.check}<span class="whose">{book.check.name}</span>{/if}
			</h2>
			<p class="quiet">
				{#if plan}{countWords(steps, states)}.{/if} Everything is connected with the power off; speakers come on
				last. Local rules come first.
			</p>
		</div>
		<div class="out no-print">
			<div class="segments" role="group" aria-label="Which way">
				<button type="button" aria-pressed={way === 'up'} onclick={() => (way = 'up')}>Connect</button>
				<button type="button" aria-pressed={way === 'down'} onclick={() => (way = 'down')}>Take down</button>
			</div>
			{#if desk.isKnown}<PrintSheets {rigId} first="hook-up" />{/if}
		</div>
	</header>
	<NoNetwork {book} />
	{#if !plan}
		<p class="quiet" role="status">
			{book.online
				? book.trouble
					? 'The order could not be made.'
					: 'Putting the steps in order…'
				: 'This device has not read this order before. It begins as soon as the server answers.'}
		</p>
	{:else if steps.length === 0}
		<p>This rig has no runs yet, so there is nothing to connect.</p>
	{:else}
		{#each byPhase(steps) as { phase, steps: own }, at (at)}
			<div>
				<h3>{PHASES[phase]}</h3>
				<ol>
					{#each own as step (step.id)}
						<StepRow
							{step}
							state={states.get(step.id)}
							waits={waitingFor(step, states).length}
							isNext={step.id === next}
							{may}
							onsay={(given, note) => say(step, given, note)}
							onback={() => takeBack(step)}
						/>
					{/each}
				</ol>
			</div>
		{/each}
	{/if}
</section>

<style>
	header {
		flex-wrap: wrap;
	}
	.out {
		display: flex;
		gap: 0.7rem;
	}
</style>
