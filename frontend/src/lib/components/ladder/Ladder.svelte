<!-- Where clip, programme and noise stand on one scale; the gaps are the message. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { dbu, number, signed } from '../../domain/format';
	import { marks, scaleFor, ticks, yOf } from '../../domain/ladder';

	interface Props {
		now: Schemas['Levels'];
		after?: Schemas['Levels'] | undefined;
		height?: number;
		humDbu?: number | null;
		/** The source has no power yet: what is told is what would arrive. */
		unpowered?: boolean;
		/** A loudspeaker at the end of an amplified run. */
		amplified?: boolean;
	}
	let {
		now,
		after = undefined,
		height = 210,
		humDbu = null,
		unpowered = false,
		amplified = false
	}: Props = $props();

	const AXIS = 40;
	const BAR = 16;
	const scale = $derived(scaleFor(after ? [now, after] : [now], height, amplified));
	const shown = $derived(marks(scale, now, after, humDbu, unpowered, amplified));
	const loud = $derived(after ?? now);
	const words = $derived(shown.map((mark) => `${mark.words} ${dbu(mark.levelDbu)}`).join(', '));
</script>

<svg width="168" {height} role="img" aria-label="Levels: {words}" class="ladder">
	{#each ticks(scale) as tick (tick)}
		<path class="tick" d="M{AXIS - 5} {yOf(scale, tick)}h{BAR + 8}" />
		{#if yOf(scale, tick) < height - 16}
			<text class="axis" x={AXIS - 9} y={yOf(scale, tick) + 3.5} text-anchor="end">{number(tick, 0)}</text>
		{/if}
	{/each}
	{#if !unpowered || after}
		<rect
			class="body"
			x={AXIS}
			width={BAR}
			y={yOf(scale, loud.arriving_dbu)}
			height={Math.max(0, yOf(scale, loud.noise_dbu) - yOf(scale, loud.arriving_dbu))}
		/>
	{/if}
	{#if !amplified}
		<rect
			class="noise"
			x={AXIS}
			width={BAR}
			y={yOf(scale, now.noise_dbu)}
			height={Math.max(0, height - 4 - yOf(scale, now.noise_dbu))}
		/>
	{/if}
	{#each shown as mark (mark.kind + String(mark.ghost))}
		<g class="{mark.kind} entry" class:ghost={mark.ghost}>
			<path class="line" d="M{AXIS - 4} {mark.y}h{BAR + 8}" />
			<path class="lead" d="M{AXIS + BAR + 5} {mark.y}L{AXIS + BAR + 13} {mark.labelY}" />
			<text x={AXIS + BAR + 16} y={mark.labelY + 4}
				><tspan class="level">{signed(mark.levelDbu)}</tspan> <tspan class="words">{mark.words}</tspan></text
			>
		</g>
	{/each}
	<text class="axis" x={AXIS - 9} y={height - 2} text-anchor="end">dBu</text>
</svg>

<style>
	.tick {
		stroke: var(--line);
	}
	.axis {
		font-size: 10.5px;
		fill: var(--dim);
	}
	.body {
		fill: color-mix(in oklab, var(--accent) 22%, transparent);
	}
	.noise {
		fill: var(--line);
	}
	.line {
		stroke: var(--dim);
		stroke-width: 1.5;
	}
	.lead {
		stroke: var(--line-strong);
		fill: none;
	}
	.hum .line {
		stroke: var(--fix);
		stroke-width: 2.5;
		stroke-dasharray: 3 2;
	}
	.clip .line {
		stroke: var(--stop);
		stroke-width: 2.5;
	}
	.arrives .line {
		stroke: var(--ink);
		stroke-width: 4;
	}
	.nominal .line {
		stroke-dasharray: 3 3;
	}
	.ghost .line {
		stroke: var(--accent);
		stroke-dasharray: 4 2;
	}
	.level {
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 11.5px;
		fill: var(--ink);
	}
	.words {
		font-size: 11.5px;
		fill: var(--dim);
	}
	.arrives .level {
		font-weight: 700;
	}
	.ghost .level,
	.ghost .words {
		fill: var(--accent);
	}
</style>
