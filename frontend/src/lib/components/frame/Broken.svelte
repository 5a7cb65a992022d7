<!-- A view that failed to draw. The rig is saved on the server; other stations still work. -->
<script lang="ts">
	let { error, reset }: { error: unknown; reset: () => void } = $props();
	const words = $derived(error instanceof Error ? error.message : String(error));
</script>

<section class="broken" role="alert">
	<h2>This view could not be drawn</h2>
	<p>Everything you changed is saved; nothing is lost. Try the view again, or go on at another station.</p>
	<p class="quiet figure">{words}</p>
	<button class="btn go" onclick={reset}>Draw it again</button>
</section>

<style>
	.broken {
		display: grid;
		gap: 0.7rem;
		justify-items: start;
		padding: 2rem;
		max-width: 42rem;
	}
	h2 {
		font-size: 1.4rem;
	}
</style>
