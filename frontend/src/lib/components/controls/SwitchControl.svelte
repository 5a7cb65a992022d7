<!-- On or off, said in words too. -->
<script lang="ts">
	import { Switch } from '@skeletonlabs/skeleton-svelte';

	let { label, value, onset }: { label: string; value: boolean; onset: (value: boolean) => void } = $props();
</script>

<Switch checked={value} onCheckedChange={(details) => onset(details.checked)}>
	<Switch.Control>
		<Switch.Thumb />
	</Switch.Control>
	<Switch.Label>{label} {value ? 'on' : 'off'}</Switch.Label>
	<Switch.HiddenInput />
</Switch>
