<!-- A volume in dB. Moves freely; saves when let go. -->
<script lang="ts">
	import { Slider } from '@skeletonlabs/skeleton-svelte';
	import { db } from '../../domain/format';

	interface Props {
		label: string;
		value: number;
		min: number;
		max: number;
		disabled: boolean;
		/** False while an edit is on its way: until then what was chosen is shown, not what is saved. */
		settled: boolean;
		onset: (value: number) => void;
	}
	let { label, value, min, max, disabled, settled, onset }: Props = $props();

	let moving = $state<number | null>(null);
	$effect(() => {
		if (settled) moving = null;
	});
	const shown = $derived(moving ?? value);
</script>

<Slider
	value={[shown]}
	{disabled}
	{min}
	{max}
	step={1}
	aria-label={[label]}
	getAriaValueText={(details) => db(details.value)}
	onValueChange={(details) => (moving = details.value[0] ?? null)}
	onValueChangeEnd={(details) => {
		const chosen = details.value[0];
		if (chosen !== undefined && (chosen !== value || !settled)) onset(chosen);
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
