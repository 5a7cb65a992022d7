<!-- The line check: one run a card, answered with a thumb; it goes on without a network. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { router } from 'svelte-spa-router';
	import CheckCard from '../../lib/components/check/CheckCard.svelte';
	import CheckList from '../../lib/components/check/CheckList.svelte';
	import CheckState from '../../lib/components/check/CheckState.svelte';
	import { placeOf } from '../../lib/domain/address';
	import {
		checkEntry,
		newEntry,
		nextOpen,
		type Answer,
		type CheckedRun,
		type NewEntry
	} from '../../lib/domain/check';
	import { CheckBook } from '../../lib/state/check-book.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	/** `away`: there was no answer from the server when the page was opened. */
	let { away = false }: { away?: boolean } = $props();
	const desk = getDesk();
	const rig = placeOf(router.location)?.rig ?? desk.selection.rigId ?? '';
	const book = new CheckBook(
		rig,
		untrack(() => (away ? null : desk.person))
	);
	let chosen = $state<string | null>(null);
	let last = $state.raw<NewEntry | null>(null);

	const open = $derived(nextOpen(book.runs, book.standing, null));
	const at = $derived(chosen ?? open ?? book.runs[0]?.run ?? null);
	const run = $derived(book.runs.find((each) => each.run === at));
	const index = $derived(book.runs.findIndex((each) => each.run === at));
	const may = $derived(away || desk.may('record'));

	onMount(() => {
		void book.start();
		// What makes the page open without a network; it works on a connection that the browser trusts alone.
		if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js').catch(() => undefined);
		return () => book.stop();
	});

	// The run is named by whoever answers: once an entry is kept, the card on screen may be another one's.
	async function answer(of: CheckedRun, given: Answer, more: Partial<NewEntry> = {}): Promise<void> {
		const entry = checkEntry(of, given, more);
		last = entry;
		await book.add(entry);
		chosen = nextOpen(book.runs, book.standing, of.run) ?? of.run;
	}

	/** Wrong first and then good: the log keeps what it was. */
	async function mended(of: CheckedRun, more: Partial<NewEntry>): Promise<void> {
		chosen = of.run;
		await book.add(checkEntry(of, 'wrong', more));
		await answer(of, 'good');
	}

	async function takeBack(): Promise<void> {
		if (!last) return;
		const was = last;
		last = null;
		await book.add(newEntry('check', { run: was.run ?? null, corrects: was.id }));
		chosen = was.run ?? null;
	}

	const step = (by: number): void => {
		chosen = book.runs[(index + by + book.runs.length) % book.runs.length]?.run ?? null;
	};
</script>

<section class="check">
	<CheckState {book} {may} />
	{#if book.check === null}
		<p class="quiet wait" role="status">
			{#if book.trouble}
				{book.trouble.message}
			{:else if book.online}
				Reading the runs of this rig…
			{:else}
				No answer from the server, and this device has not read this check before. It begins as soon as the
				server answers.
			{/if}
		</p>
	{:else if book.runs.length === 0}
		<p class="quiet wait">This rig has no runs yet, so there is nothing to check.</p>
	{:else}
		<div class="beside">
			{#if run}
				{#key run.run}
					<CheckCard
						{run}
						{may}
						place="{index + 1} of {book.runs.length}"
						card={book.check.cards[run.run]}
						standing={book.standing.get(run.run)}
						lastTime={book.check.log.last_time.find((had) => had.run === run.run)}
						undo={last === null
							? null
							: {
									words: book.runs.find((each) => each.run === last?.run)?.name ?? '',
									answer: last.answer ?? null
								}}
						onanswer={(given, more) => void answer(run, given, more)}
						onmended={(more) => void mended(run, more)}
						onundo={() => void takeBack()}
						onstep={step}
					/>
				{/key}
			{/if}
			<CheckList runs={book.runs} standing={book.standing} {at} onchoose={(id) => (chosen = id)} />
		</div>
	{/if}
</section>

<style>
	/* On a phone the station's own head says whose check it is; the answers need the room. */
	@media (max-width: 720px) {
		:global(body:has(.check) header.top),
		:global(body:has(.check) main > p.note.no-print) {
			display: none;
		}
	}
	.check {
		display: flex;
		flex-direction: column;
		flex: 1;
		min-height: 0;
	}
	.wait {
		padding: 1.5rem;
	}
	.beside {
		display: grid;
		grid-template-columns: minmax(0, 30rem) minmax(0, 1fr);
		gap: 1.5rem;
		padding: 1rem 1.25rem;
		align-items: start;
	}
	@media (max-width: 720px) {
		.beside {
			grid-template-columns: minmax(0, 1fr);
			padding: 0;
			gap: 0;
		}
	}
</style>
