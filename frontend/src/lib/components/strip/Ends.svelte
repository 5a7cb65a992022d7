<!-- Both ends of a strip: names on tape, socket labels, and the receiver with what it makes of hot and cold. -->
<script lang="ts">
	import Tape from '../marks/Tape.svelte';
	import type { EndBox } from '../../domain/strip-types';

	interface Props {
		ends: EndBox[];
		width: number;
		/** By gear.connector: "L − R". */
		outcomes: Map<string, string>;
		bad: boolean;
		narrow: boolean;
	}
	let { ends, width, outcomes, bad, narrow }: Props = $props();
	const tapeWidth = $derived(Math.min(narrow ? 160 : 230, width / 2 - 4));
</script>

{#each ends as end (end.owner)}
	<foreignObject x={end.side === 'source' ? 0 : width - tapeWidth} y="0" width={tapeWidth} height="30">
		<div class="tape-place {end.side}"><Tape name={end.name} /></div>
	</foreignObject>
	{#each end.connectors as connector (connector.end)}
		<text
			class="socket"
			x={end.side === 'source' ? 2 : width - 2}
			y={connector.top - (connector === end.connectors[0] ? 50 : 25)}
			text-anchor={end.side === 'source' ? 'start' : 'end'}>{connector.label}</text
		>
		{#if end.side === 'destination'}
			{@const apex = { x: connector.hot.x + 52, y: (connector.hot.y + connector.cold.y) / 2 }}
			{@const outcome = outcomes.get(connector.end) ?? ''}
			<path
				class="receiver"
				d="M{connector.hot.x + 16} {connector.hot.y - 11}V{connector.cold.y + 11}L{apex.x} {apex.y}Z"
			/>
			<text class="sign" x={connector.hot.x + 20} y={connector.hot.y + 5}>+</text>
			<text class="sign" x={connector.cold.x + 20} y={connector.cold.y + 4}>−</text>
			<text class="outcome" class:bad x={apex.x + 4} y={apex.y + 4}>{outcome}</text>
		{/if}
	{/each}
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
	.bad {
		fill: var(--stop);
	}
</style>
