<!-- A lead between its plugs: what should be joined, what was read. Two contacts that are tapped are read. -->
<script lang="ts">
	import { draw, WIDTH, type Dot, type LeadOnBench } from '../../domain/lead-bench';

	let { bench, ontap }: { bench: LeadOnBench; ontap: (a: string, b: string) => void } = $props();
	const drawing = $derived(draw(bench, bench.test.readings ?? []));
	let first = $state<Dot | null>(null);
	const BEND = 72;
	const RADIUS = 9;

	function tap(dot: Dot): void {
		if (first === null) first = dot;
		else {
			if (first.id !== dot.id) ontap(first.id, dot.id);
			first = null;
		}
	}

	/** Across the middle, or round outside the plug where both are on one side. */
	function path(from: Dot, to: Dot): string {
		const out = (dot: Dot): number => (dot.side === 'left' ? BEND : -BEND);
		const scale = from.side === to.side ? 0.5 : 1;
		return `M${from.x} ${from.y} C${from.x + out(from) * scale} ${from.y} ${to.x + out(to) * scale} ${to.y} ${to.x} ${to.y}`;
	}
</script>

<svg viewBox="0 0 {WIDTH} {drawing.height}" role="group" aria-label="Contacts of {bench.name}">
	{#each drawing.plugs as plug (`${plug.side} ${plug.y}`)}
		<text class="label" x={plug.x} y={plug.y + 15} text-anchor={plug.side === 'left' ? 'end' : 'start'}
			>{plug.label}</text
		>
	{/each}
	{#each drawing.wires as { from, to, look } (`${from.id} ${to.id}`)}
		<path class={look} d={path(from, to)} />
		{#if look === 'open'}
			<rect class="gap" x={(from.x + to.x) / 2 - 11} y={(from.y + to.y) / 2 - 8} width="22" height="16" />
		{/if}
	{/each}
	{#each drawing.dots as dot (dot.id)}
		<g
			class="contact"
			class:first={first?.id === dot.id}
			role="button"
			tabindex="0"
			aria-label="{dot.words} at {dot.plug}"
			aria-pressed={first?.id === dot.id}
			onclick={() => tap(dot)}
			onkeydown={(event) => {
				if (event.key !== 'Enter' && event.key !== ' ') return;
				event.preventDefault();
				tap(dot);
			}}
		>
			<rect x={dot.side === 'left' ? dot.x - 70 : dot.x - 14} y={dot.y - 14} width="84" height="28" />
			<circle cx={dot.x} cy={dot.y} r={RADIUS} />
			<text
				x={dot.side === 'left' ? dot.x - 17 : dot.x + 17}
				y={dot.y + 5}
				text-anchor={dot.side === 'left' ? 'end' : 'start'}>{dot.words}</text
			>
		</g>
	{/each}
</svg>

<style>
	svg {
		width: 100%;
		max-width: 28rem;
		height: auto;
		display: block;
	}
	text {
		fill: var(--ink);
		font-size: 14px;
	}
	.label {
		fill: var(--dim);
		font-size: 12.5px;
	}
	path {
		fill: none;
		stroke: var(--line-strong);
		stroke-width: 2;
	}
	.expected {
		stroke-dasharray: 1 7;
		stroke-linecap: round;
		stroke-width: 3;
	}
	.good {
		stroke: var(--clear);
		stroke-width: 3;
	}
	.wrong {
		stroke: var(--stop);
		stroke-width: 4;
	}
	.open {
		stroke: var(--stop);
		stroke-width: 3;
	}
	.flickers {
		stroke: var(--watch);
		stroke-width: 3;
		stroke-dasharray: 12 6;
	}
	.gap {
		fill: var(--panel);
	}
	.contact {
		cursor: pointer;
		outline: none;
	}
	.contact rect {
		fill: transparent;
	}
	.contact circle {
		fill: var(--panel);
		stroke: var(--line-strong);
		stroke-width: 2;
	}
	.contact:hover circle,
	.contact:focus-visible circle {
		stroke: var(--accent);
		stroke-width: 3;
	}
	.contact.first circle {
		fill: var(--accent);
	}
</style>
