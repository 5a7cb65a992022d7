<!-- What a typed line takes from the kit, and what would have to be borrowed or bought for it. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { needed } from '../../domain/needed';

	let { runs }: { runs: readonly Schemas['ReadRun'][] } = $props();
	const pieces = $derived(needed(runs));
</script>

<dl>
	{#if pieces.fromKit.length > 0}
		<dt>From the kit</dt>
		<dd>
			{#each pieces.fromKit as words, index (index)}<span class="piece">{words}</span>{/each}
		</dd>
	{/if}
	{#if pieces.toGet.length > 0}
		<dt>To get</dt>
		<dd>
			{#each pieces.toGet as words, index (index)}<span class="piece get">{words}</span>{/each}
		</dd>
	{/if}
	{#if pieces.fromKit.length + pieces.toGet.length === 0}
		<dt>Pieces</dt>
		<dd><span class="piece">none: plugged straight in</span></dd>
	{/if}
</dl>

<style>
	dl {
		display: grid;
		grid-template-columns: 6rem 1fr;
		gap: 0.3rem 0.6rem;
		font-size: 0.8125rem;
		align-items: baseline;
	}
	dt {
		color: var(--dim);
	}
	dd {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 0.5rem;
		min-width: 0;
	}
	.piece {
		border: 1px solid var(--line-strong);
		padding: 0.05rem 0.45rem;
	}
	.get {
		border-style: dashed;
	}
</style>
