<!-- What a helper recorded, to be made the plan or taken back. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { keepAsBuilt, restorePlan } from '../../api/queries';
	import { clock } from '../../domain/format';
	import { Asking } from '../../state/asking.svelte';
	import { getDesk } from '../../state/desk.svelte';

	interface Props {
		line: Schemas['HistoryLine'];
		rigId: string;
		onsettled: () => Promise<void>;
	}
	let { line, rigId, onsettled }: Props = $props();
	const desk = getDesk();
	const asking = new Asking();

	async function settle(how: (rig: string, edit: number) => Promise<unknown>): Promise<void> {
		await asking.ask(() => how(rigId, line.id));
		await onsettled();
	}
</script>

<div class="line">
	<p>
		<b>{line.label}</b> <span class="quiet">{line.own ? 'you' : line.person}, {clock(line.made_at)}</span>
	</p>
	{#if desk.may('plan')}
		<button
			type="button"
			class="btn preset-tonal"
			disabled={asking.busy}
			onclick={() => void settle(keepAsBuilt)}
			>Keep<span class="sr-only"> “{line.label}” as the plan</span></button
		>
		<button type="button" class="btn" disabled={asking.busy} onclick={() => void settle(restorePlan)}
			>Restore the plan<span class="sr-only"> before “{line.label}”</span></button
		>
	{:else}
		<span class="quiet">a technician keeps it or restores the plan</span>
	{/if}
	{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
</div>

<style>
	.line {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.3rem 0.8rem;
	}
	.line > p:first-child {
		margin-right: auto;
	}
	.refused {
		width: 100%;
		color: var(--stop);
	}
</style>
