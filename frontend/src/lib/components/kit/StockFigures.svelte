<!-- A rig's kit in four figures. -->
<script lang="ts">
	import type { Stock } from '../../domain/kit';

	let { stock }: { stock: Stock } = $props();
</script>

<dl class="stock">
	<div>
		<dt>at hand</dt>
		<dd>{stock.owned}</dd>
	</div>
	<div>
		<dt>in use here</dt>
		<dd>{stock.owned - stock.free}</dd>
	</div>
	<div>
		<dt>free</dt>
		<dd>{stock.free}</dd>
	</div>
	<div class:short={stock.toGet > 0}>
		<dt>to borrow or buy</dt>
		<dd>{stock.toGet}</dd>
	</div>
	{#if stock.waiting.length > 0}
		<p>
			{stock.waiting.length === 1 ? 'One run waits' : `${stock.waiting.length} runs wait`} for what is short.
		</p>
	{/if}
</dl>

<style>
	.stock {
		display: flex;
		flex-wrap: wrap;
		align-items: end;
		gap: 0.6rem 2.2rem;
		margin: 0;
		padding: 0.8rem 1rem;
		background: var(--panel);
		border: 1px solid var(--line);
	}
	.stock div {
		display: grid;
	}
	.stock dt {
		color: var(--dim);
		font-size: 0.8125rem;
	}
	.stock dd {
		margin: 0;
		order: -1;
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 1.5rem;
		line-height: 1.2;
	}
	.stock .short dd {
		color: var(--fix);
	}
	.stock p {
		margin: 0 0 0 auto;
		color: var(--fix);
	}
	@media (max-width: 720px) {
		.stock {
			gap: 0.6rem 1.4rem;
		}
	}
</style>
