<!-- What is drawn a frame after the rest, so that a heavy part of a page does not hold up what is read first. -->
<script lang="ts">
	import type { Snippet } from 'svelte';

	let { children }: { children: Snippet } = $props();
	let isDue = $state(false);

	$effect(() => {
		// A frame is asked for and then a task of its own, since a frame's callbacks are one task with its layout.
		let later: ReturnType<typeof setTimeout> | undefined;
		const frame = requestAnimationFrame(() => (later = setTimeout(() => (isDue = true))));
		return () => {
			cancelAnimationFrame(frame);
			clearTimeout(later);
		};
	});
</script>

{#if isDue}{@render children()}{/if}
