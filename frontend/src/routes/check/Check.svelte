<!-- The line check: one run a card, answered with a thumb; it goes on without a network. -->
<script lang="ts">
	import { onMount, untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { router } from 'svelte-spa-router';
	import CheckCard from '../../lib/components/check/CheckCard.svelte';
	import CheckList from '../../lib/components/check/CheckList.svelte';
	import CheckState from '../../lib/components/check/CheckState.svelte';
	import FromPaper from '../../lib/components/check/FromPaper.svelte';
	import { addressOf, placeOf } from '../../lib/domain/address';
	import {
		answeredLast,
		checkEntry,
		newEntry,
		nextOpen,
		workingEntry,
		type Answer,
		type CheckedRun,
		type NewEntry
	} from '../../lib/domain/check';
	import { byItem, workers, type Role } from '../../lib/domain/working';
	import { CheckBook } from '../../lib/state/check-book.svelte';
	import { CheckPlace } from '../../lib/state/check-place.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';
	import { showHead } from '../../lib/state/in-sight';
	import { keepRole, keptRole } from '../../lib/state/role';

	const LOOK_EVERY_MS = 5000;
	const desk = getDesk();
	const rig = placeOf(router.location)?.rig ?? desk.selection.rigId ?? '';
	const book = new CheckBook(
		rig,
		untrack(() => desk.person)
	);
	const place = new CheckPlace(placeOf(router.location)?.run ?? null);
	let last = $state.raw<NewEntry | null>(null);
	let role = $state<Role>(keptRole());
	let paper = $state(false);
	let now = $state(Date.now());
	/** What was said on this device; two devices may have one name. */
	const own = new SvelteSet<string>();

	const open = $derived(nextOpen(book.items, book.standing, null));
	const at = $derived(place.item ?? open ?? book.items[0]?.run ?? null);
	const run = $derived(book.items.find((each) => each.run === at));
	const index = $derived(book.items.findIndex((each) => each.run === at));
	const may = $derived(desk.mayRecord);
	const atWork = $derived(workers(book.entries, own, book.standing, now));
	const others = $derived(atWork.filter((worker) => !worker.own));
	const there = $derived(byItem(others));
	const playing = $derived(others[0] ?? null);
	const photos = $derived(new Map(book.photos.map(({ id, picture }) => [id, picture])));
	const steps = $derived(book.items.filter(({ step }) => step !== undefined));
	const lists = $derived([
		{ label: 'Before the runs', runs: steps.filter(({ step }) => step?.phase === 'radio') },
		{ label: 'All runs', runs: book.runs },
		{ label: 'After the runs', runs: steps.filter(({ step }) => step?.phase !== 'radio') }
	]);

	onMount(() => {
		void book.start();
		// What makes the page open without a network; it works on a connection that the browser trusts alone.
		if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js').catch(() => undefined);
		const timer = setInterval(() => (now = Date.now()), LOOK_EVERY_MS);
		return () => {
			clearInterval(timer);
			book.stop();
		};
	});

	$effect(() => {
		book.shown = at;
	});

	// A code that is scanned while the check is open leads to its run too.
	$effect(() => {
		const named = placeOf(router.location)?.run;
		if (named) place.item = named;
	});

	// At the desk the card follows what is played on stage.
	let followed = '';
	$effect(() => {
		if (role !== 'desk' || place.writing || playing === null || playing.entry === followed) return;
		followed = playing.entry;
		place.moveTo(playing.item);
	});

	// On stage the card goes on once the desk has answered.
	let played = $state<{ item: string; at: number } | null>(null);
	$effect(() => {
		if (role !== 'stage' || played === null) return;
		const answered = book.standing.get(played.item);
		if (answered === undefined || Date.parse(answered.at) < played.at) return;
		place.moveTo(nextOpen(book.items, book.standing, played.item) ?? played.item);
		played = null;
	});

	/** From the list, which lies below the card on a phone. */
	function show(item: string): void {
		place.item = item;
		document.querySelector('.check')?.scrollIntoView({ block: 'start' });
	}

	function choose(wanted: Role): void {
		role = wanted;
		keepRole(wanted);
	}

	// The run is named by whoever answers: once an entry is kept, the card on screen may be another one's.
	async function answer(of: CheckedRun, given: Answer, more: Partial<NewEntry> = {}): Promise<void> {
		if (!place.takesTap()) return;
		await keepAnswer(of, given, more);
	}

	async function keepAnswer(of: CheckedRun, given: Answer, more: Partial<NewEntry> = {}): Promise<void> {
		const entry = checkEntry(of, given, more);
		last = entry;
		await book.add(entry);
		place.moveTo(nextOpen(book.items, book.standing, of.run) ?? of.run);
		showHead();
	}

	/** Wrong first and then good: the log keeps what it was. */
	async function mended(of: CheckedRun, more: Partial<NewEntry>): Promise<void> {
		if (!place.takesTap()) return;
		place.item = of.run;
		await book.add(checkEntry(of, 'wrong', more));
		await keepAnswer(of, 'good');
	}

	async function sayPlaying(of: CheckedRun): Promise<void> {
		const entry = workingEntry(of);
		own.add(entry.id);
		place.item = of.run;
		played = { item: of.run, at: Date.parse(entry.at) };
		await book.add(entry);
	}

	async function takeBack(): Promise<void> {
		if (!last) return;
		const was = last;
		last = null;
		await book.add(newEntry(was.kind, { run: was.run ?? null, step: was.step ?? null, corrects: was.id }));
		place.item = was.step ?? was.run ?? null;
	}

	const step = (by: number): void => {
		place.item = book.items[(index + by + book.items.length) % book.items.length]?.run ?? null;
	};
</script>

<section class="check">
	<CheckState {book} {may} {role} onrole={choose} {paper} onpaper={() => (paper = !paper)} />
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
	{:else if paper}
		<FromPaper {book} onclose={() => (paper = false)} />
	{:else}
		<div class="beside">
			{#if run}
				{#key run.run}
					<CheckCard
						{run}
						{may}
						{role}
						{rig}
						{photos}
						steady={place.steady}
						place="{index + 1} of {book.items.length}"
						card={book.check.cards[run.run]}
						standing={book.standing.get(run.run)}
						lastTime={book.check.log.last_time.find((had) => had.run === run.run)}
						there={there.get(run.run) ?? []}
						undo={last && answeredLast(last, book.items)}
						addressOfRun={(of) => (book.online ? `#${addressOf({ station: 'runs', rig, run: of })}` : null)}
						onwriting={(wrong) => (place.writing = wrong)}
						onphoto={(picture) => book.addPicture(picture)}
						onworking={() => void sayPlaying(run)}
						onanswer={(given, more) => void answer(run, given, more)}
						onmended={(more) => void mended(run, more)}
						onundo={() => void takeBack()}
						onstep={step}
					/>
				{/key}
			{/if}
			<div class="lists">
				{#each lists as { label, runs } (label)}
					{#if runs.length > 0}
						{#if steps.length > 0}<h3>{label}</h3>{/if}
						<CheckList {runs} {label} {there} standing={book.standing} {at} onchoose={show} />
					{/if}
				{/each}
			</div>
		</div>
	{/if}
</section>

<style>
	.check {
		display: flex;
		flex-direction: column;
		flex: 1;
		min-height: 0;
	}
	.wait {
		padding: 1.5rem;
	}
	.lists h3 {
		padding: 0.7rem 0.9rem 0.3rem;
		font-size: 1rem;
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
