<!-- How a piece is: a drawn one is the house's, so every rig that has it is told. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { noteCondition } from '../../api/house';
	import { CONDITIONS, type Condition } from '../../domain/cupboard';
	import { set } from '../../domain/ops';
	import { Asking } from '../../state/asking.svelte';
	import { getDesk } from '../../state/desk.svelte';

	let { item }: { item: Schemas['KitItem'] } = $props();
	const desk = getDesk();
	const asking = new Asking();
	const condition = $derived(item.condition ?? 'good');

	async function mark(next: Condition): Promise<void> {
		if (item.drawn) {
			const { item: id, number = 1 } = item.drawn;
			const remark = next === 'good' ? '' : (item.remark ?? '');
			await asking.ask(() => noteCondition(id, { condition: next, was: condition, remark, number }));
			await desk.sync.watch();
		} else {
			await desk.sync.edit({
				label: `Kit: ${item.tag} ${next}`,
				ops: [
					set('kit', item.id, 'condition', next),
					...(next === 'good' && item.faults?.length ? [set('kit', item.id, 'faults', [])] : [])
				]
			});
		}
	}
</script>

<span class="condition {condition}">
	<select
		aria-label="Condition of {item.tag}"
		disabled={asking.busy || !desk.may(item.drawn ? 'record' : 'plan')}
		value={condition}
		onchange={(event) => void mark(event.currentTarget.value as Condition)}
	>
		{#each Object.entries(CONDITIONS) as [value, words] (value)}<option {value}>{words}</option>{/each}
	</select>
	<span class="quiet">{item.remark ?? ''}{asking.refused ?? ''}</span>
</span>

<style>
	.condition {
		display: inline-flex;
		gap: 0.6rem;
		align-items: center;
		min-width: 0;
	}
	select {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--line);
		padding: 0.1rem 0.4rem;
		min-height: 1.75rem;
		font-size: 0.8125rem;
	}
	.suspect select {
		border-color: var(--watch);
	}
	.faulty select,
	.away select {
		border-color: var(--fix);
	}
	.quiet {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
</style>
