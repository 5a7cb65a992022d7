<!-- A thing of the cupboard opened: who has it when, how it is, where it is kept; it is taken into a rig or removed. -->
<script lang="ts">
	import { changeItem, drawItem, noteCondition, removeItem } from '../../api/house';
	import { addressOf } from '../../domain/address';
	import { CONDITIONS, type Entry } from '../../domain/cupboard';
	import { dayOf, hoursOf } from '../../domain/occasions';
	import { Asking } from '../../state/asking.svelte';
	import { getDesk } from '../../state/desk.svelte';
	import LeadTester from '../tester/LeadTester.svelte';
	import ThingHistory from '../tester/ThingHistory.svelte';

	interface Props {
		entry: Entry;
		/** What the open rig is called. */
		rigName: string | null;
		onchange: () => Promise<void>;
	}
	let { entry, rigName, onchange }: Props = $props();
	const desk = getDesk();
	const asking = new Asking();

	// What somebody is typing stays, whatever others change meanwhile.
	// svelte-ignore state_referenced_locally
	let { condition, remark } = $state({ condition: entry.condition, remark: entry.remark });
	/** Of several alike: all of them, or a single one by its number. */
	let which = $state('all');
	let testing = $state(false);
	const numbers = $derived(Array.from({ length: entry.count }, (_, at) => at + 1));
	const heldBy = $derived(new Map(entry.holdings.map((held) => [held.number, held.rig_name])));

	const inRig = $derived(entry.holdings.filter(({ rig }) => rig === desk.selection.rigId).length);

	async function ask(what: () => Promise<unknown>): Promise<void> {
		await asking.ask(what);
		await onchange();
	}

	async function mark(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const number = which === 'all' ? null : Number(which);
		await ask(() =>
			noteCondition(entry.id, { condition, was: entry.condition, remark: remark.trim(), number })
		);
	}

	const change = (field: 'store' | 'name' | 'count', value: string | number): void => {
		if (value !== entry[field] && value !== '')
			void ask(() => changeItem(entry.id, field, value, entry[field]));
	};
</script>

<div class="inside">
	{#if entry.holdings.length > 0}
		<ul class="holdings">
			{#each entry.holdings as held (`${held.rig} ${held.number}`)}
				<li>
					<a href="#{addressOf({ station: 'kit', rig: held.rig, run: null })}">{held.rig_name}</a>
					<span class="quiet"
						>{held.occasion}, {dayOf(held.starts_at)}, {hoursOf(held)}{entry.count > 1
							? `, number ${held.number}`
							: ''}</span
					>
				</li>
			{/each}
		</ul>
	{/if}
	{#if desk.may('record')}
		<form class="in-a-row" onsubmit={(event) => void mark(event)} aria-label="Condition of {entry.name}">
			{#if entry.count > 1}
				<label class="field"
					><span>Of which</span>
					<select bind:value={which}>
						<option value="all">all {entry.count}</option>
						{#each numbers as number (number)}
							<option value={String(number)}
								>only number {number}{heldBy.has(number) ? `, in ${heldBy.get(number)}` : ''}</option
							>
						{/each}
					</select></label
				>
			{/if}
			<label class="field"
				><span>Condition</span>
				<select bind:value={condition}>
					{#each Object.entries(CONDITIONS) as [value, words] (value)}<option {value}>{words}</option>{/each}
				</select></label
			>
			<label class="field wide"
				><span>What is the matter, or where it is</span>
				<input maxlength="600" placeholder="crackles when moved" bind:value={remark} /></label
			>
			<button type="submit" class="btn preset-tonal" disabled={asking.busy}>Save condition</button>
		</form>
	{/if}
	{#if desk.may('plan')}
		<div class="in-a-row">
			<label class="field"
				><span>Kept in</span>
				<input
					maxlength="60"
					value={entry.store}
					onchange={(event) => change('store', event.currentTarget.value.trim())}
				/></label
			>
			<label class="field"
				><span>{entry.count > 1 ? 'Called' : 'Tag'}</span>
				<input
					maxlength="120"
					value={entry.name}
					onchange={(event) => change('name', event.currentTarget.value.trim())}
				/></label
			>
			{#if entry.count > 1}
				<label class="field"
					><span>How many</span>
					<input
						type="number"
						min="1"
						max="200"
						value={entry.count}
						onchange={(event) => change('count', event.currentTarget.valueAsNumber)}
					/></label
				>
			{/if}
			{#if desk.selection.rigId && rigName && inRig < entry.count}
				<button
					type="button"
					class="btn preset-tonal"
					disabled={asking.busy}
					onclick={() => void ask(() => drawItem(desk.selection.rigId ?? '', entry.id))}
					>Take into {rigName}</button
				>
			{/if}
			<button
				type="button"
				class="in-text"
				disabled={asking.busy}
				onclick={() => void ask(() => removeItem(entry.id))}
				>Remove<span class="sr-only"> {entry.name}</span> from the cupboard</button
			>
		</div>
	{/if}
	{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
	{#if entry.kind !== 'gear'}
		{#if testing}
			<LeadTester of={{ item: entry.id }} count={entry.count} onsaved={onchange} />
		{:else}
			<button type="button" class="btn preset-tonal test" onclick={() => (testing = true)}
				>Test {entry.count > 1 ? 'one of them' : entry.name}</button
			>
		{/if}
		<ThingHistory id={entry.id} />
	{/if}
</div>

<style>
	.inside {
		display: grid;
		gap: 0.9rem;
		padding: 0.4rem 0.25rem 1rem 1.35rem;
	}
	.holdings li {
		font-size: 0.875rem;
	}
	.holdings a {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	.test {
		justify-self: start;
	}
	.wide {
		flex: 1 1 18rem;
		max-width: 30rem;
	}
	.wide input {
		width: 100%;
	}
	@media (max-width: 720px) {
		.inside {
			padding-left: 0.25rem;
		}
	}
</style>
