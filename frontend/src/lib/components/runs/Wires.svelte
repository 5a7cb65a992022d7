<!-- A run's way in its line of the list: the conductors as they are joined, the pieces named under them. -->
<script lang="ts">
	import { length, type LengthUnit } from '../../domain/format';
	import { INK, type Drawing } from '../../domain/strip-types';
	import { wiresOf } from '../../domain/wires';

	let { drawing, unit }: { drawing: Drawing; unit: LengthUnit } = $props();

	const DRAWN = 300;
	const HALF = 9;
	const wires = $derived(wiresOf(drawing, DRAWN));
	const words = ({ names, lengthM }: { names: string[]; lengthM: number | null }): string =>
		(names.length > 2 ? `${names[0]} and ${names.length - 1} more` : names.join(', ')) +
		(lengthM === null ? '' : ` ${length(lengthM, unit)}`);
</script>

<span class="wires">
	<svg viewBox="0 0 {wires.width} {wires.height}" preserveAspectRatio="none" aria-hidden="true">
		{#each wires.layout.lines as line, index (index)}
			<path d={line.path} stroke={INK[line.look]} class:dashed={line.look === 'right'} />
		{/each}
		{#each wires.layout.capsules as capsule, index (index)}
			<path class="mated" d="M{capsule.x + capsule.width / 2} {capsule.y + 8}v{capsule.height - 16}" />
		{/each}
		{#each wires.layout.components as component, index (index)}
			<rect x={component.at.x - HALF} y={component.at.y - HALF} width={2 * HALF} height={2 * HALF} />
		{/each}
	</svg>
	{#each wires.pieces as piece (piece.left)}
		<span class="piece" style:left="{piece.left}%" style:width="{piece.width}%">{words(piece)}</span>
	{/each}
</span>

<style>
	.wires {
		display: block;
		position: relative;
		height: 30px;
	}
	svg {
		width: 100%;
		height: 16px;
		margin-top: 1px;
		overflow: visible;
	}
	path {
		fill: none;
		stroke-width: 1.5;
		vector-effect: non-scaling-stroke;
	}
	.mated {
		stroke: var(--ink);
		stroke-width: 3;
	}
	.dashed {
		stroke-dasharray: 5 2.5;
	}
	rect {
		fill: var(--raised);
		stroke: var(--line-strong);
		vector-effect: non-scaling-stroke;
	}
	.piece {
		position: absolute;
		top: 17px;
		text-align: center;
		font-family: 'Saira Variable', sans-serif;
		font-stretch: 75%;
		font-size: 11px;
		line-height: 13px;
		color: var(--dim);
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
</style>
