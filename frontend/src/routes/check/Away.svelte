<!-- The line check alone, from what this device keeps, while the server does not answer. -->
<script lang="ts">
	import { onMount } from 'svelte';
	import Check from './Check.svelte';

	let { onback }: { onback: () => void } = $props();
	const AGAIN_MS = 2000;
	onMount(() => {
		const timer = setInterval(onback, AGAIN_MS);
		return () => clearInterval(timer);
	});
</script>

<main>
	<Check away />
</main>

<style>
	main {
		display: flex;
		flex-direction: column;
		min-height: 100dvh;
	}
</style>
