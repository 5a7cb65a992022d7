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
