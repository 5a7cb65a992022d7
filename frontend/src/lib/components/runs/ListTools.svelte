<!-- Over the list: its order, and what the rig rests on that nobody has confirmed. -->
<script lang="ts">
	import type { RigView } from '../../api/rig-view';
	import { ORDERS, type Order } from '../../domain/groups';
	import { getDesk } from '../../state/desk.svelte';
	import Together from './Together.svelte';
	import Assumed from '../frame/Assumed.svelte';

	let { state, count }: { state: RigView; count: number } = $props();
	const desk = getDesk();
	/** So few need no order. */
	const FEW = 3;
</script>

<div class="tools">
	{#if count > FEW}
		<div class="segments" role="group" aria-label="Order of the runs">
			{#each Object.entries(ORDERS) as [order, words] (order)}
				<button
					type="button"
					aria-pressed={desk.selection.order === order}
					onclick={() => (desk.selection.order = order as Order)}>{words}</button
				>
			{/each}
		</div>
	{/if}
	{#if desk.may('plan')}<Assumed {state} />{/if}
	<span class="count quiet">{count === 1 ? '1 run' : `${count} runs`}</span>
	{#if desk.selection.marked.size > 0 && desk.may('plan')}<Together rig={state.rig} />{/if}
</div>

<style>
	.tools {
		display: flex;
		flex-wrap: wrap;
		align-items: flex-start;
		gap: 0.4rem 1.3rem;
	}
	.count {
		margin-left: auto;
		font-size: 0.875rem;
	}
</style>
