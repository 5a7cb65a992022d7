<!-- Both ends of a strip: names on tape, socket labels, and the receivers with what they make of what arrives. -->
<script lang="ts">
	import Tape from '../marks/Tape.svelte';
	import type { Ear, EndBox } from '../../domain/strip-types';

	interface Props {
		ends: EndBox[];
		ears: Ear[];
		width: number;
		/** By gear.input: "L − R". */
		outcomes: Map<string, string>;
		/** By gear.input: "−4.1 dBu", where it helps to tell one input from another. */
		figures: Map<string, string>;
		bad: boolean;
		narrow: boolean;
	}
	let { ends, ears, width, outcomes, figures, bad, narrow }: Props = $props();
	/** Two inputs on one socket stand too near for a figure between them. */
	const ROOM = 48;
	const tapeWidth = $derived(Math.min(narrow ? 160 : 230, width / 2 - 4));
	const isFirst = (end: EndBox, connector: EndBox['connectors'][number]): boolean =>
		connector.top === end.top;
</script>

{#each ends as end (end.id)}
	<foreignObject
		x={end.side === 'source' ? 0 : width - tapeWidth}
		y={end.top - 92}
		width={tapeWidth}
		height="30"
	>
		<div class="tape-place {end.side}"><Tape name={end.name} /></div>
	</foreignObject>
	{#each end.connectors as connector (connector.end)}
		<text
			class="socket"
			x={end.side === 'source' ? 2 : width - 2}
			y={connector.top - (isFirst(end, connector) ? 50 : 41)}
			text-anchor={end.side === 'source' ? 'start' : 'end'}>{connector.label}</text
		>
	{/each}
{/each}
{#each ears as ear (ear.gear + '.' + ear.input)}
	{@const room = ears.every((one) => one === ear || Math.abs(one.hot.y - ear.hot.y) >= ROOM)}
	{@const low = ear.cold ?? ear.hot}
	{@const [top, foot] = [Math.min(ear.hot.y, low.y), Math.max(ear.hot.y, low.y)]}
	{@const apex = { x: ear.hot.x + (ear.cold ? 52 : 38), y: (top + foot) / 2 }}
	<path class="receiver" d="M{ear.hot.x + 16} {top - 11}V{foot + 11}L{apex.x} {apex.y}Z" />
	<text class="sign" x={ear.hot.x + 20} y={ear.hot.y + 5}>+</text>
	{#if ear.cold}<text class="sign" x={ear.cold.x + 20} y={ear.cold.y + 4}>−</text>{/if}
	<text class="outcome" class:bad x={apex.x + 4} y={apex.y + 4}
		>{outcomes.get(`${ear.gear}.${ear.input}`) ?? ''}</text
	>
	{#if room}
		<text class="arrives" x={ear.hot.x + 17} y={foot + 25}
			>{figures.get(`${ear.gear}.${ear.input}`) ?? ''}</text
		>
	{/if}
{/each}

<style>
	.tape-place {
		display: flex;
	}
	.destination {
		justify-content: flex-end;
	}
	.socket {
		font-size: 12px;
		fill: var(--dim);
	}
	.receiver {
		fill: var(--raised);
		stroke: var(--line-strong);
		stroke-width: 1.3;
	}
	.sign {
		font-size: 13px;
		fill: var(--ink);
		font-weight: 600;
	}
	.outcome {
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 13px;
		font-weight: 600;
		fill: var(--ink);
	}
	.arrives {
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 11px;
		fill: var(--dim);
	}
	.bad {
		fill: var(--stop);
	}
</style>
