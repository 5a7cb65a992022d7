<!-- Noise, hum, programme and clip of a run on the scale that all lines of the list share. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { dbu } from '../../domain/format';
	import { levelBar, TICKS_DBU, WIDTH, xOf } from '../../domain/level-bar';

	interface Props {
		levels: Schemas['Levels'];
		humDbu: number | null;
		amplified: boolean;
		/** Nothing arrives until its phantom power is on. */
		unpowered: boolean;
	}
	let { levels, humDbu, amplified, unpowered }: Props = $props();
	const bar = $derived(levelBar(levels, humDbu, amplified));
	const words = $derived(
		[
			`${unpowered ? 'powered' : 'arrives'} ${dbu(levels.arriving_dbu)}`,
			...(humDbu === null ? [] : [`hum ${dbu(humDbu)}`]),
			...(amplified ? [] : [`noise ${dbu(levels.noise_dbu)}`]),
			`${amplified ? 'bears' : 'clips at'} ${dbu(levels.clip_dbu)}`
		].join(', ')
	);
</script>

<svg width={WIDTH} height="20" role="img" aria-label="Levels: {words}">
	<title>{words}</title>
	{#each TICKS_DBU as tick (tick)}<path class="tick" d="M{xOf(tick)} 3v14" />{/each}
	<rect class="noise" x="0" y="6" width={bar.noise} height="8" />
	<rect class="hum" x={bar.noise} y="6" width={bar.hum - bar.noise} height="8" />
	{#if !unpowered}
		<rect class="programme" x={bar.hum} y="6" width={Math.max(0, bar.arrives - bar.hum)} height="8" />
	{/if}
	<path class="arrives" class:unpowered d="M{bar.arrives} 2v16" />
	<path class="clip" d="M{bar.clip} 2v16" />
</svg>

<style>
	.tick {
		stroke: var(--line);
	}
	.noise {
		fill: var(--line-strong);
	}
	.hum {
		fill: var(--fix);
	}
	.programme {
		fill: color-mix(in oklab, var(--accent) 26%, transparent);
	}
	.arrives {
		stroke: var(--ink);
		stroke-width: 3;
	}
	.unpowered {
		stroke: var(--dim);
		stroke-dasharray: 3 2;
	}
	.clip {
		stroke: var(--stop);
		stroke-width: 2;
	}
</style>
