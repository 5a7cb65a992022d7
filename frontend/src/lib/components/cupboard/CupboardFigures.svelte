<!-- The whole cupboard in five figures. -->
<script lang="ts">
	import type { Figures } from '../../domain/cupboard';

	let { figures }: { figures: Figures } = $props();
</script>

<dl>
	<div>
		<dt>things</dt>
		<dd>{figures.things}</dd>
	</div>
	<div>
		<dt>taken from now on</dt>
		<dd>{figures.taken}</dd>
	</div>
	<div class:watch={figures.suspect > 0}>
		<dt>suspect</dt>
		<dd>{figures.suspect}</dd>
	</div>
	<div class:fix={figures.faulty > 0}>
		<dt>faulty</dt>
		<dd>{figures.faulty}</dd>
	</div>
	<div>
		<dt>away</dt>
		<dd>{figures.away}</dd>
	</div>
</dl>

<style>
	dl {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 2.2rem;
		margin: 0;
		padding: 0.7rem 1rem;
		background: var(--panel);
		border: 1px solid var(--line);
	}
	dl div {
		display: grid;
	}
	dt {
		color: var(--dim);
		font-size: 0.8125rem;
	}
	dd {
		margin: 0;
		order: -1;
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 1.5rem;
		line-height: 1.2;
	}
	.watch dd {
		color: var(--watch);
	}
	.fix dd {
		color: var(--fix);
	}
</style>
