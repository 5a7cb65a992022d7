<!-- A written strip of white tape; for names of runs and gear only. -->
<script lang="ts">
	let { name, size = 'normal' }: { name: string; size?: 'small' | 'normal' | 'large' } = $props();
</script>

<span class="tape {size}">{name}</span>

<style>
	.tape {
		display: inline-block;
		background: var(--tape);
		color: var(--tape-ink);
		font-family: 'Saira Variable', sans-serif;
		font-stretch: 72%;
		font-weight: 600;
		line-height: 1.2;
		padding: 2px 9px 3px;
		/* Torn ends. */
		clip-path: polygon(0 0, 100% 0, calc(100% - 2px) 30%, 100% 62%, calc(100% - 3px) 100%, 2px 100%, 0 55%);
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
		max-width: 100%;
		box-shadow: inset 0 0 0 1px rgb(0 0 0 / 8%);
	}
	.small {
		font-size: 0.78rem;
		padding: 0 6px 1px;
	}
	.large {
		font-size: 1.2rem;
	}
</style>
