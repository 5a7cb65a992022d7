<!-- A switch with named positions. -->
<script lang="ts">
	import { SegmentedControl } from '@skeletonlabs/skeleton-svelte';

	interface Props {
		label: string;
		value: string;
		options: readonly string[];
		onset: (value: string) => void;
	}
	let { label, value, options, onset }: Props = $props();
</script>

<SegmentedControl
	{value}
	onValueChange={(details) => {
		if (details.value !== null && details.value !== value) onset(details.value);
	}}
>
	<SegmentedControl.Label>{label}</SegmentedControl.Label>
	<SegmentedControl.Control>
		<SegmentedControl.Indicator />
		{#each options as option (option)}
			<SegmentedControl.Item value={option}>
				<SegmentedControl.ItemText>{option}</SegmentedControl.ItemText>
				<SegmentedControl.ItemHiddenInput />
			</SegmentedControl.Item>
		{/each}
	</SegmentedControl.Control>
</SegmentedControl>

<style>
	:global([data-scope='radio-group'][data-part='root']) {
		max-width: 100%;
	}
	/* Beside the ladder on a phone there is room for one word a row. */
	:global([data-scope='radio-group'][data-part='root'] > [role='presentation']),
	:global([data-scope='radio-group'][data-part='root'] > div) {
		flex-wrap: wrap;
		max-width: 100%;
		height: auto;
	}
	:global([data-scope='radio-group'][data-part='item']) {
		font-size: 0.875rem;
		padding-inline: 0.6rem;
	}
	/* The sliding mark is measured after it appears; the chosen word must be legible before that, and without it. */
	:global([data-scope='radio-group'][data-part='item'][data-state='checked']) {
		background: var(--ink);
		color: var(--ground);
		border-radius: 2px;
	}
	:global([data-scope='radio-group'][data-part='item'][data-state='checked'] *) {
		color: var(--ground);
	}
</style>
