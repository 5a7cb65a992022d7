<!-- The page before the house: what this is, and one thing to do. -->
<script lang="ts">
	import type { Snippet } from 'svelte';

	let { heading, children }: { heading: string; children?: Snippet } = $props();
</script>

<svelte:head><title>Ruvak</title></svelte:head>

<main class="door">
	<div class="say">
		<p class="what">Ruvak</p>
		<p class="quiet">Plans every run of a rig and computes what will hum, cancel, clip or go dull.</p>
		<svg viewBox="0 0 320 64" aria-hidden="true">
			<path d="M4 20H86M146 20H316" class="hot" />
			<path d="M4 32H86M146 32H316" class="cold" />
			<path d="M4 46H316" class="screen" />
			<rect x="86" y="10" width="60" height="32" />
			<circle cx="8" cy="20" r="4" class="hot-end" /><circle cx="8" cy="32" r="4" class="cold-end" />
			<circle cx="312" cy="20" r="4" class="hot-end" /><circle cx="312" cy="32" r="4" class="cold-end" />
		</svg>
	</div>
	<div class="do">
		<h1>{heading}</h1>
		{@render children?.()}
	</div>
</main>

<style>
	.door {
		min-height: 100dvh;
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1.1fr);
		align-items: center;
	}
	.say {
		display: grid;
		gap: 1rem;
		align-content: center;
		justify-items: start;
		height: 100%;
		padding: 2rem clamp(1.5rem, 6vw, 6rem);
		background: var(--panel);
		border-right: 1px solid var(--line);
	}
	.say p {
		max-width: 24rem;
	}
	.what {
		font-family: 'Saira Variable', sans-serif;
		font-stretch: 78%;
		font-weight: 600;
		font-size: 2.6rem;
		line-height: 1;
	}
	svg {
		width: min(20rem, 100%);
		fill: none;
		stroke-width: 3;
	}
	rect {
		stroke: var(--line-strong);
		fill: var(--ground);
	}
	.hot {
		stroke: var(--wire-hot);
	}
	.cold {
		stroke: var(--wire-cold);
	}
	.screen {
		stroke: var(--line-strong);
		stroke-dasharray: 6 4;
	}
	.hot-end {
		fill: var(--wire-hot);
	}
	.cold-end {
		fill: var(--wire-cold);
	}
	.do {
		display: grid;
		gap: 1.1rem;
		justify-items: start;
		padding: 2rem clamp(1.5rem, 6vw, 6rem);
		max-width: 38rem;
	}
	h1 {
		font-size: 1.6rem;
	}
	@media (max-width: 720px) {
		.door {
			grid-template-columns: minmax(0, 1fr);
			align-content: start;
		}
		.say {
			height: auto;
			padding: 1.2rem 1.2rem;
			gap: 0.5rem;
			border-right: 0;
			border-bottom: 1px solid var(--line);
		}
		.what {
			font-size: 1.8rem;
		}
		svg {
			display: none;
		}
		.do {
			padding: 1.5rem 1.2rem;
		}
	}
</style>
