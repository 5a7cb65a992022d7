<!-- Controls that whoever is signed in may not use are shown as they stand, and do nothing. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import { getDesk, type Right } from '../../state/desk.svelte';

	let { may, children }: { may: Right; children: Snippet } = $props();
	const desk = getDesk();
</script>

<fieldset disabled={!desk.may(may)}>{@render children()}</fieldset>

<style>
	fieldset {
		display: contents;
	}
</style>
