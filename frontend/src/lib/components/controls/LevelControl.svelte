<!-- A volume in dB. Moves freely; saves when let go. -->
<script lang="ts">
	import { Slider } from '@skeletonlabs/skeleton-svelte';
	import { db } from '../../domain/format';

	interface Props {
		label: string;
		value: number;
		min: number;
		max: number;
		onset: (value: number) => void;
	}
	let { label, value, min, max, onset }: Props = $props();

	let moving = $state<number | null>(null);
	const shown = $derived(moving ?? value);
</script>

<Slider
	value={[shown]}
	{min}
	{max}
	step={1}
	aria-label={[label]}
	getAriaValueText={(details) => db(details.value)}
	onValueChange={(details) => (moving = details.value[0] ?? null)}
	onValueChangeEnd={(details) => {
		moving = null;
		const chosen = details.value[0];
		if (chosen !== undefined && chosen !== value) onset(chosen);
	}}
>
	<div class="row">
		<Slider.Label>{label}</Slider.Label>
		<span class="figure">{db(shown)}</span>
	</div>
	<Slider.Control>
		<Slider.Track>
			<Slider.Range />
		</Slider.Track>
		<Slider.Thumb index={0}>
			<Slider.HiddenInput />
		</Slider.Thumb>
	</Slider.Control>
</Slider>

<style>
	.row {
		display: flex;
		justify-content: space-between;
		gap: 0.75rem;
	}
</style>
