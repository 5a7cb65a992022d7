<!-- Hook-up, check and doors alone, from what this device keeps, while the server does not answer. -->
<script lang="ts">
	import { onMount, type Component } from 'svelte';
	import { router } from 'svelte-spa-router';
	import Rail from '../../lib/components/frame/Rail.svelte';
	import type { Alone } from '../../lib/components/people/alone';
	import { ALONE, type AloneStation } from '../../lib/domain/stations';
	import Doors from '../doors/Doors.svelte';
	import HookUp from '../hook-up/HookUp.svelte';
	import { VIEWS } from '../routes';
	import Check from './Check.svelte';

	let { station, isBack, onask, onleave }: Alone = $props();
	const AGAIN_MS = 2000;
	const views: Record<AloneStation, Component> = {
		'hook-up': HookUp,
		check: Check,
		doors: Doors
	};
	const View = $derived(views[station]);

	onMount(() => {
		const timer = setInterval(() => {
			if (!isBack) onask();
		}, AGAIN_MS);
		return () => clearInterval(timer);
	});
</script>

<div class="away">
	<main>
		<h1 class="sr-only">Ruvak without a network</h1>
		{#if isBack}
			<p class="back" role="status">
				The server answers again. <button type="button" class="in-text" onclick={onleave}
					>Open everything</button
				>
			</p>
		{/if}
		{#key router.location}<View />{/key}
	</main>
	<Rail state={undefined} views={VIEWS} only={ALONE} />
</div>

<style>
	.away {
		display: grid;
		grid-template: 'rail main' minmax(0, 1fr) / 8rem minmax(0, 1fr);
		height: 100dvh;
	}
	main {
		grid-area: main;
		display: flex;
		flex-direction: column;
		min-width: 0;
		overflow-y: auto;
	}
	.back {
		padding: 0.5rem 0.9rem;
		border-bottom: 1px solid var(--line);
	}
	@media (max-width: 720px) {
		.away {
			grid-template: 'main' minmax(0, 1fr) 'rail' auto / minmax(0, 1fr);
		}
	}
</style>
