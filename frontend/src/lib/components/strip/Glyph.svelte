<!-- A component that interrupts the metal: a box with its value, two plates, or two facing coils. -->
<script lang="ts">
	import type { Component } from '../../domain/strip-types';

	let { component }: { component: Component } = $props();
	const place = $derived(`translate(${component.at.x} ${component.at.y}) rotate(${component.turn})`);
</script>

<g transform={place} class="component">
	{#if component.type === 'resistor'}
		<rect x="-13" y="-5" width="26" height="10" rx="1.5" />
	{:else if component.type === 'capacitor'}
		<path d="M-13 0h10M-3-8v16M3-8v16M3 0h10" />
	{:else if component.type === 'inductor'}
		<path d="M-13 0c0-7 6-7 6 0c0-7 7-7 7 0c0-7 7-7 7 0c0-7 6-7 6 0" />
	{:else if component.type === 'buffer'}
		<path d="M-9-18V18L9 0Z M9 0V-14M9 0V14" />
	{:else}
		<path d="M-9-14c8 1 8 8 0 9c8 1 8 8 0 9c8 1 8 8 0 10M9-14c-8 1-8 8 0 9c-8 1-8 8 0 9c-8 1-8 8 0 10" />
	{/if}
</g>
<text
	class="value"
	x={component.at.x}
	y={component.at.y + (component.type === 'transformer' || component.type === 'buffer' ? -21 : -9)}
	text-anchor="middle">{component.label}</text
>

<style>
	.component {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.8;
	}
	rect {
		fill: var(--raised);
	}
	.value {
		font-size: 11px;
		fill: var(--dim);
		/* A halo, so that a wire behind the figure does not strike it through. */
		paint-order: stroke;
		stroke: var(--ground);
		stroke-width: 4px;
		stroke-linejoin: round;
	}
</style>
