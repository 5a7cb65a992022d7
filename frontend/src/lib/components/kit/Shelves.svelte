<!-- A rig's kit: what is short first, then by kind. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { shelvesOf, stockOf } from '../../domain/kit';
	import ShelfRow from './ShelfRow.svelte';
	import StockFigures from './StockFigures.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();

	const KINDS = [
		['lead', 'Leads'],
		['adapter', 'Adapters'],
		['box', 'Boxes']
	] as const;

	const shelves = $derived(shelvesOf(rig));
	const groups = $derived([
		{ name: 'To borrow or buy', short: true, shelves: shelves.filter((one) => one.toGet > 0) },
		...KINDS.map(([kind, name]) => ({
			name,
			short: false,
			shelves: shelves.filter((one) => one.kind === kind && one.owned > 0)
		}))
	]);
</script>

{#if shelves.length === 0}
	<p class="quiet">No kit in this rig yet: lines draw it from the cupboard, or write the first line above.</p>
{:else}
	<StockFigures stock={stockOf(shelves)} />
{/if}
{#each groups as { name, short, shelves: own } (name)}
	{#if own.length > 0}
		<section aria-label={name} class:short>
			<h3 class="heading">{name}</h3>
			<ul>
				{#each own as shelf (shelf.key)}
					<ShelfRow {shelf} {short} rigId={rig.id} unit={rig.length_unit ?? 'm'} />
				{/each}
			</ul>
		</section>
	{/if}
{/each}

<style>
	section {
		display: grid;
		gap: 0.2rem;
	}
	section.short {
		border-left: 3px solid var(--fix);
		padding-left: 0.8rem;
	}
</style>
