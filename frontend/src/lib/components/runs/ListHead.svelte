<!-- What the columns of the list are, with the scale all levels in it share. -->
<script lang="ts">
	import { number } from '../../domain/format';
	import { TICKS_DBU, WIDTH, xOf } from '../../domain/level-bar';
</script>

<div class="head heading" aria-hidden="true">
	<div class="columns">
		<span></span>
		<span></span>
		<span>Run</span>
		<span>Way, from the source</span>
		<span>Goes into</span>
		<svg width={WIDTH} height="16">
			{#each TICKS_DBU as tick, index (tick)}
				<text x={xOf(tick)} y="12" text-anchor="middle"
					>{number(tick, 0)}{index === TICKS_DBU.length - 1 ? ' dBu' : ''}</text
				>
			{/each}
		</svg>
		<span>Verdict</span>
	</div>
</div>

<style>
	.head {
		padding: 0.3rem 0.9rem 0.2rem 0.7rem;
		border-left: 4px solid transparent;
		font-size: 0.75rem;
	}
	text {
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 10px;
		fill: var(--dim);
	}
	svg {
		overflow: visible;
	}
	@media (max-width: 980px) {
		.head {
			display: none;
		}
	}
</style>
