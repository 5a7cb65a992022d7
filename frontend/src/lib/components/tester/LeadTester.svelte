<!-- Testing a lead: readings typed, tapped or taken from the tester; what they say; saved into its history. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { onMount } from 'svelte';
	import { testerQuery, type Tested } from '../../api/lead-tests';
	import { MOST_DRAWN, outcome } from '../../domain/lead-bench';
	import { getDesk } from '../../state/desk.svelte';
	import { LeadBench } from '../../state/lead-bench.svelte';
	import LeadWires from './LeadWires.svelte';
	import ReadsAs from './ReadsAs.svelte';

	interface Props {
		of: Tested;
		/** Of several alike: how many there are. */
		count?: number;
		onsaved: () => Promise<void> | void;
	}
	let { of, count = 1, onsaved }: Props = $props();
	const desk = getDesk();
	const queries = useQueryClient();
	// svelte-ignore state_referenced_locally
	const lead = new LeadBench(of);
	const tester = createQuery(() => testerQuery());
	let words = $state('');
	// svelte-ignore state_referenced_locally
	let number = $state(count);
	const bench = $derived(lead.bench);
	const contacts = $derived(bench?.plugs.reduce((sum, plug) => sum + plug.contacts.length, 0) ?? 0);
	const hasRead = $derived(
		(bench?.test.readings?.length ?? 0) > 0 || (bench?.test.lamp !== null && bench?.test.lamp !== undefined)
	);
	onMount(() => void lead.look());

	const places = $derived([
		{ id: 'near', words: bench?.plugs[0]?.label ?? 'first plug' },
		{ id: 'middle', words: 'middle' },
		{ id: 'far', words: bench?.plugs.at(-1)?.label ?? 'other plug' }
	] as const);

	async function save(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (await lead.save(words.trim(), count > 1 ? number : null)) {
			words = '';
			await queries.invalidateQueries({ queryKey: ['log'] });
			await onsaved();
		}
	}
</script>

<section class="tester" aria-label="Lead tester">
	{#if bench}
		<div class="in-a-row">
			<label class="field wide"
				><span>What you read, contact to contact</span>
				<input
					maxlength="600"
					placeholder="1-1 ok, 2-2 ok, 3 dead, female 1-2 beeps; or: pass"
					value={lead.text}
					oninput={(event) => void lead.type(event.currentTarget.value)}
				/></label
			>
			{#if tester.data?.name}
				<button
					type="button"
					class="btn preset-tonal"
					disabled={lead.asking.busy}
					onclick={() => void lead.ask(null)}>Read from the tester</button
				>
				<span class="moving" role="group" aria-label="Read while the lead is moved">
					<span class="quiet">Move at</span>
					{#each places as place (place.id)}
						<button
							type="button"
							class="in-text"
							disabled={lead.asking.busy}
							onclick={() => void lead.ask(place.id)}>{place.words}</button
						>
					{/each}
				</span>
			{/if}
		</div>
		{#if tester.data?.name}
			<p class="quiet">
				{tester.data.name}{tester.data.leads && tester.data.leads.length > 0
					? ` holds ${tester.data.leads.join(', ')}`
					: ''}.
			</p>
		{/if}
		{#if lead.asking.refused}<p class="refused" role="alert">{lead.asking.refused}</p>{/if}
		<div class="board">
			{#if contacts <= MOST_DRAWN}
				<div>
					<LeadWires {bench} ontap={(a, b) => void lead.tap(a, b)} />
					<p class="quiet">Tap two contacts: joined, not joined, comes and goes, not read.</p>
				</div>
			{/if}
			<ReadsAs diagnosis={bench.diagnosis} {hasRead} bind:chosen={lead.chosen} />
		</div>
		{#if hasRead && desk.may('record')}
			<form class="in-a-row" onsubmit={(event) => void save(event)}>
				{#if count > 1}
					<label class="field"
						><span>Which of the {count}</span>
						<input type="number" min="1" max={count} bind:value={number} /></label
					>
				{/if}
				<label class="field wide"
					><span>Note</span>
					<input maxlength="300" placeholder="resolder before Friday" bind:value={words} /></label
				>
				<button type="submit" class="btn go" disabled={lead.asking.busy}
					>{outcome(bench.diagnosis, lead.chosen)}</button
				>
				<button
					type="button"
					class="in-text"
					onclick={() => {
						lead.clear();
						void lead.look();
					}}>Read anew</button
				>
			</form>
		{/if}
		{#if lead.saved}<p role="status">Saved. Every rig that has {bench.name} is computed so.</p>{/if}
	{:else if lead.asking.refused}
		<p class="refused" role="alert">{lead.asking.refused}</p>
	{:else}
		<p class="quiet">Fetching its plugs…</p>
	{/if}
</section>

<style>
	.tester {
		display: grid;
		gap: 0.7rem;
		border: 1px solid var(--line);
		background: var(--panel);
		padding: 0.8rem 1rem;
	}
	.wide {
		flex: 1 1 20rem;
		max-width: 36rem;
	}
	.wide input {
		width: 100%;
	}
	.moving {
		display: inline-flex;
		flex-wrap: wrap;
		gap: 0.3rem 0.9rem;
		align-items: baseline;
	}
	.board {
		display: grid;
		grid-template-columns: minmax(0, 28rem) minmax(14rem, 1fr);
		gap: 1rem 2rem;
		align-items: start;
	}
	@media (max-width: 900px) {
		.board {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
