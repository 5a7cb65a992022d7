<!-- A part of an account or of the house: heading, a sentence, its form. -->
<script lang="ts">
	import type { Snippet } from 'svelte';

	interface Props {
		heading: string;
		words: string;
		refused?: string | null;
		children: Snippet;
	}
	let { heading, words, refused = null, children }: Props = $props();
	const id = $props.id();
</script>

<section aria-labelledby={id}>
	<h3 {id}>{heading}</h3>
	<p class="quiet">{words}</p>
	{@render children()}
	{#if refused}<p class="refused" role="alert">{refused}</p>{/if}
</section>

<style>
	section {
		display: grid;
		gap: 0.7rem;
		justify-items: start;
		width: 100%;
		padding-top: 1.1rem;
		border-top: 1px solid var(--line);
	}
	h3 {
		font-size: 1.1rem;
	}
	p {
		font-size: 0.875rem;
		max-width: 42rem;
	}
</style>
