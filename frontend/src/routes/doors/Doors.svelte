<!-- The last ten minutes: what is not good yet, who is at it, how long there is, and what is lost if it stays. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { onMount, untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import { router } from 'svelte-spa-router';
	import { occasionsQuery, openDoors } from '../../lib/api/house';
	import NoNetwork from '../../lib/components/check/NoNetwork.svelte';
	import OpenRow from '../../lib/components/doors/OpenRow.svelte';
	import { addressOf, placeOf } from '../../lib/domain/address';
	import { newEntry, workingEntry, type CheckedRun } from '../../lib/domain/check';
	import {
		clockOf,
		doorsWords,
		isLate,
		lossesOf,
		minutesTo,
		openItems,
		timeOn,
		workingTime
	} from '../../lib/domain/doors';
	import { clock } from '../../lib/domain/format';
	import { byItem, workers } from '../../lib/domain/working';
	import { Asking } from '../../lib/state/asking.svelte';
	import { CheckBook } from '../../lib/state/check-book.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const LOOK_EVERY_MS = 1000;
	const desk = getDesk();
	const queries = useQueryClient();
	const asking = new Asking();
	const rig = placeOf(router.location)?.rig ?? desk.selection.rigId ?? '';
	const book = new CheckBook(
		rig,
		untrack(() => desk.person)
	);
	const occasions = createQuery(() => ({ ...occasionsQuery(), enabled: !desk.byLink && desk.isKnown }));
	let now = $state(Date.now());
	const own = new SvelteSet<string>();

	const occasion = $derived(occasions.data?.find(({ rigs }) => rigs.some(({ id }) => id === rig)));
	const doors = $derived(occasions.data ? (occasion?.doors_at ?? null) : (book.check?.doorsAt ?? null));
	const minutes = $derived(doors === null ? null : minutesTo(doors, now));
	const open = $derived(openItems(book.items, book.standing, lossesOf(book.check?.round)));
	const wrong = $derived(open.filter(({ state }) => state === 'wrong').length);
	const atWork = $derived(workers(book.entries, own, book.standing, now));
	const others = $derived(byItem(atWork.filter((worker) => !worker.own)));
	const mine = $derived(
		new Map(atWork.filter((worker) => worker.own).map(({ item, entry }) => [item, entry]))
	);
	const time = $derived(workingTime(book.entries));
	const may = $derived(desk.mayRecord);

	onMount(() => {
		void book.start();
		const timer = setInterval(() => (now = Date.now()), LOOK_EVERY_MS);
		return () => {
			clearInterval(timer);
			book.stop();
		};
	});

	$effect(() => {
		if (occasions.data && book.check) void book.rememberDoors(doors);
	});

	function take(item: CheckedRun): void {
		const entry = workingEntry(item);
		own.add(entry.id);
		void book.add(entry);
	}

	function leave(item: CheckedRun): void {
		const entry = mine.get(item.run);
		if (entry) void book.add(newEntry('working', { ...workingEntry(item), corrects: entry }));
	}

	async function setDoors(typed: string): Promise<void> {
		if (!occasion) return;
		await asking.ask(() => openDoors(occasion.id, typed === '' ? null : timeOn(occasion.starts_at, typed)));
		await queries.invalidateQueries({ queryKey: occasionsQuery().queryKey });
	}
</script>

<svelte:head><title>Doors · Ruvak</title></svelte:head>

<section class="view">
	<header>
		<div>
			<h2>
				{#if minutes === null}Before the doors{:else}<span class="figure" class:late={isLate(minutes)}
						>{doorsWords(minutes)}</span
					>{/if}
			</h2>
			<p class="quiet">
				{#if book.check}
					{book.check.name}:
					{open.length === 0
						? 'Everything is good.'
						: `${open.length} of ${book.items.length} not good yet${wrong > 0 ? `, ${wrong} wrong` : ''}.`}
					{#if time}
						{open.length === 0 ? 'Ready after' : 'At work for'}
						{time.minutes} min ({clock(time.from)} to {clock(time.until)}).
					{/if}
				{:else}Reading the check…{/if}
			</p>
		</div>
		{#if occasion && desk.may('plan')}
			<label class="field no-print"
				><span>Doors at</span>
				<input
					type="time"
					value={doors === null ? '' : clockOf(doors)}
					onchange={(event) => void setDoors(event.currentTarget.value)}
				/></label
			>
		{:else if !occasion && !desk.byLink && occasions.data}
			<p class="quiet no-print"><a href="#/weeks">Give this rig a date</a>, and its doors a time.</p>
		{/if}
	</header>
	{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
	<NoNetwork {book} />
	{#if book.check && book.items.length === 0}
		<p>This rig has no runs yet, so there is nothing to check.</p>
	{:else if book.check && open.length === 0}
		<p class="ready">Nothing is left to check.</p>
	{:else}
		<ol>
			{#each open as each (each.item.run)}
				<OpenRow
					open={each}
					{may}
					there={others.get(each.item.run) ?? []}
					own={mine.has(each.item.run)}
					address={addressOf({ station: 'check', rig, run: each.item.run })}
					ontake={() => take(each.item)}
					onleave={() => leave(each.item)}
				/>
			{/each}
		</ol>
	{/if}
</section>

<style>
	header {
		flex-wrap: wrap;
	}
	h2 .figure {
		font-size: 1.7rem;
	}
	.late {
		color: var(--stop);
	}
	ol {
		list-style: none;
		border-top: 1px solid var(--line);
	}
	.ready {
		padding: 1rem;
		border-left: 4px solid var(--clear);
		font-size: 1.15rem;
	}
</style>
