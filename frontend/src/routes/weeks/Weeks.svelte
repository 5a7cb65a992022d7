<!-- What is on, by date: each occasion with its rigs and what was noted; the same a week later is one key. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import type { Schemas } from '../../lib/api/client';
	import { addOccasion, cupboardQuery, makeAgain, occasionsQuery } from '../../lib/api/house';
	import { rigsQuery } from '../../lib/api/queries';
	import OccasionForm from '../../lib/components/weeks/OccasionForm.svelte';
	import OccasionLine from '../../lib/components/weeks/OccasionLine.svelte';
	import { aWeekLater, byWeeks, dayOf, nextOf, typedOf, type Occasion } from '../../lib/domain/occasions';
	import { Asking } from '../../lib/state/asking.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const EVENING = { from: '17:00', to: '22:00' };
	const desk = getDesk();
	const queries = useQueryClient();
	const asking = new Asking();
	const occasions = createQuery(() => occasionsQuery());
	const rigs = createQuery(() => rigsQuery());
	const cupboard = createQuery(() => cupboardQuery());

	let openId = $state<string | null>(null);
	let beginning = $state(false);
	let withRig = $state(true);
	let said = $state.raw<{ occasion: Occasion; sentences: readonly string[] } | null>(null);

	const now = new Date();
	const all = $derived(occasions.data ?? []);
	const weeks = $derived(byWeeks(all, now));
	const next = $derived(nextOf(all, now));
	const shown = $derived(openId ?? next?.id ?? null);
	const openRig = $derived(rigs.data?.find(({ id }) => id === desk.selection.rigId));

	const renew = async (): Promise<void> => {
		await Promise.all(
			[occasionsQuery(), rigsQuery(), cupboardQuery()].map(({ queryKey }) =>
				queries.invalidateQueries({ queryKey })
			)
		);
		await desk.sync.watch();
	};

	async function add(body: Schemas['OccasionBody']): Promise<void> {
		const own = withRig && openRig ? [openRig.id] : [];
		const made = await asking.ask(() => addOccasion({ ...body, rigs: own }));
		if (made) {
			beginning = false;
			openId = made.result.id;
		}
		await renew();
	}

	async function again(occasion: Occasion): Promise<void> {
		if (asking.busy) return;
		const made = await asking.ask(() => makeAgain(occasion.id, aWeekLater(occasion)));
		if (made) tell(made.result.occasion, made.result.said);
		await renew();
	}

	function tell(occasion: Occasion, sentences: readonly string[]): void {
		openId = occasion.id;
		said = { occasion, sentences };
	}

	function key(event: KeyboardEvent): void {
		const target = event.target;
		const typing = target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
		const occasion = all.find(({ id }) => id === shown);
		if (event.key.toLowerCase() !== 'l' || event.ctrlKey || event.metaKey || event.altKey) return;
		if (typing || event.repeat || !occasion || !desk.may('plan')) return;
		event.preventDefault();
		void again(occasion);
	}

	const start = $derived({
		...(next ? typedOf(next) : EVENING),
		name: openRig?.occasion ?? '',
		day: typedOf({ name: '', starts_at: now.toISOString(), ends_at: now.toISOString() }).day
	});
</script>

<svelte:head><title>Weeks · Ruvak</title></svelte:head>
<svelte:window onkeydown={key} />

<section class="view">
	<header>
		<div>
			<h2>Weeks</h2>
			<p class="quiet">What is on, with its rigs. What was noted goes along until somebody has seen to it.</p>
		</div>
		<div class="in-a-row no-print">
			<a class="btn preset-tonal" href="/api/occasions/calendar" download>Calendar file</a>
			{#if desk.may('plan')}
				<button type="button" class="btn go" disabled={beginning} onclick={() => (beginning = true)}
					>New date</button
				>
			{/if}
		</div>
	</header>
	{#if beginning}
		<OccasionForm
			label="New date"
			{start}
			button="Create date"
			busy={asking.busy}
			onsend={add}
			oncancel={() => (beginning = false)}
		>
			{#if openRig}
				<label class="with-rig"
					><input type="checkbox" bind:checked={withRig} /> for the rig {openRig.name}{openRig.date
						? ', which has another date until now'
						: ''}</label
				>
			{/if}
		</OccasionForm>
	{/if}
	{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
	{#if said}
		<div class="said" role="status">
			<p>
				<b>{said.occasion.name}, {dayOf(said.occasion.starts_at)}.</b>
				{said.sentences.length === 0 ? 'Everything as before is free for it.' : 'What is different:'}
			</p>
			{#if said.sentences.length > 0}
				<ul>
					{#each said.sentences as sentence (sentence)}<li>{sentence}</li>{/each}
				</ul>
			{/if}
			<button type="button" class="in-text" onclick={() => (said = null)}>Close</button>
		</div>
	{/if}
	{#if occasions.isError && !occasions.data}
		<p>The dates could not be fetched. {occasions.error.message}</p>
	{:else if !occasions.data}
		<p class="quiet">Fetching the dates…</p>
	{:else}
		{#each weeks as week (week.weeks)}
			<section aria-label={week.name}>
				<h3 class="heading">{week.name}</h3>
				<ul>
					{#each week.occasions as occasion (occasion.id)}
						<OccasionLine
							{occasion}
							earlier={all.find(({ id }) => id === occasion.after)}
							rigs={rigs.data ?? []}
							entries={cupboard.data?.entries ?? []}
							isOpen={occasion.id === shown}
							isNext={occasion.id === next?.id}
							onopen={() => (openId = occasion.id === shown ? '' : occasion.id)}
							onagain={() => void again(occasion)}
							onsaid={tell}
							onchange={renew}
						/>
					{/each}
				</ul>
			</section>
		{:else}
			<p class="quiet">
				No dates yet{desk.may('plan')
					? '. Create one: for its hours the leads of its rigs are nobody else’s'
					: ''}.
			</p>
		{/each}
	{/if}
</section>

<style>
	.with-rig {
		display: flex;
		gap: 0.6rem;
		align-items: center;
		font-size: 0.875rem;
	}
	.said {
		display: grid;
		gap: 0.3rem;
		justify-items: start;
		padding: 0.6rem 1rem;
		background: var(--panel);
		border-left: 3px solid var(--accent);
	}
	.said ul {
		list-style: disc;
		padding-left: 1.2rem;
		font-size: 0.875rem;
	}
</style>
