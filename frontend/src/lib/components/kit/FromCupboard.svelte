<!-- What the rig has drawn from the house's cupboard; what no run uses can be put back for others. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import type { Schemas } from '../../api/client';
	import { cupboardQuery, putBack } from '../../api/house';
	import { rigsQuery } from '../../api/queries';
	import { Asking } from '../../state/asking.svelte';
	import { getDesk } from '../../state/desk.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();
	const queries = useQueryClient();
	const asking = new Asking();
	const rigs = createQuery(() => rigsQuery());

	const inUse = $derived(
		new Set([
			...(rig.runs ?? []).flatMap((run) => [
				...(run.pieces ?? []),
				...(run.joins ?? []).flatMap(({ a, b }) => [a, b].map((end) => end.split('.')[0]))
			]),
			...(rig.bonds ?? []).flatMap(({ a, b }) => [a, b].map((end) => end.split('.')[0]))
		])
	);
	const drawn = $derived([...(rig.kit ?? []), ...(rig.gear ?? [])].filter((thing) => thing.drawn));
	const idle = $derived(drawn.filter(({ id }) => !inUse.has(id)).length);
	const dated = $derived(rigs.data?.find(({ id }) => id === rig.id)?.date != null);

	async function back(): Promise<void> {
		await asking.ask(() => putBack(rig.id));
		await queries.invalidateQueries({ queryKey: cupboardQuery().queryKey });
		await desk.sync.watch();
	}
</script>

{#if drawn.length > 0}
	<p>
		{drawn.length}
		{drawn.length === 1 ? 'thing is' : 'things are'} drawn from the cupboard{dated
			? ' and taken for the hours of its date'
			: '; without a date nothing is taken from others'}.
		{#if idle > 0 && desk.may('plan')}
			<button type="button" class="in-text no-print" disabled={asking.busy} onclick={() => void back()}
				>Put back {idle} that no run uses</button
			>
		{/if}
	</p>
{/if}
{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
