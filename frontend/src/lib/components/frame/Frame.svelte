<!-- Top bar, stations, the open view, and whatever went wrong said across the top. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { router } from 'svelte-spa-router';
	import { rigQuery, rigsQuery } from '../../api/queries';
	import { Trouble } from '../../api/client';
	import { placeOf } from '../../domain/address';
	import { goesOnAlone, isOfTheHouse } from '../../domain/stations';
	import { followAddress } from '../../state/address.svelte';
	import { getDesk } from '../../state/desk.svelte';
	import Broken from './Broken.svelte';
	import DemoNote from '../people/DemoNote.svelte';
	import LongWork from './LongWork.svelte';
	import KeysHelp from './KeysHelp.svelte';
	import Missing from './Missing.svelte';
	import Notice from './Notice.svelte';
	import Rail from './Rail.svelte';
	import type { StationViews } from './station-views';
	import TopBar from './TopBar.svelte';
	import { keepPress } from '../../state/press';
	import { shortcuts } from '../../state/shortcuts';

	const WATCH_MS = 1000;
	const HIDDEN_EVERY = 5;
	let { views }: { views: StationViews } = $props();
	const desk = getDesk();
	let main: HTMLElement | undefined = $state();
	let helpOpen = $state(false);

	const rigs = createQuery(() => rigsQuery());
	const rig = createQuery(() => ({
		...rigQuery(desk.selection.rigId ?? ''),
		enabled: desk.selection.rigId !== null
	}));
	const place = $derived(placeOf(router.location));
	const View = $derived(place && views[place.station].view);
	// A view of a rig begins anew with another rig; what is typed at a view of the house stays when a rig opens behind it.
	const viewKey = $derived(
		place && isOfTheHouse(place.station) && place.station !== 'rigs'
			? router.location
			: `${place?.station} ${desk.selection.rigId}`
	);
	const gone = $derived(rig.error instanceof Trouble && rig.error.status === 404);

	// In the list of rigs nothing is missing: a rig deleted elsewhere gives way to one there is.
	$effect(() => {
		if (gone && place && isOfTheHouse(place.station)) desk.selection.forget();
	});
	followAddress(desk, () => (rigs.isPending ? null : (rigs.data?.map(({ id }) => id) ?? [])));
	// What others save comes on screen within a second; a page nobody looks at asks less often.
	$effect(() => {
		let ticks = 0;
		const timer = setInterval(() => {
			ticks += 1;
			if (!document.hidden || ticks % HIDDEN_EVERY === 0) void desk.sync.watch();
		}, WATCH_MS);
		return () => clearInterval(timer);
	});
</script>

<svelte:window
	onkeydown={(event) => shortcuts(event, desk, () => (helpOpen = !helpOpen))}
	onpointerdown={keepPress}
/>

<!-- The address names what is on screen, so skipping moves the focus alone. -->
<button type="button" class="skip" onclick={() => main?.focus()}>Skip to the runs</button>
<div class="frame" class:on-stage={goesOnAlone(place?.station)}>
	<TopBar state={rig.data} onhelp={() => (helpOpen = true)} />
	<Rail state={rig.data} {views} />
	<main id="main" tabindex="-1" bind:this={main}>
		<!-- On a phone in place of that of the top bar. -->
		{#if goesOnAlone(place?.station)}<h1 class="sr-only on-phone">{rig.data?.rig.name ?? 'Ruvak'}</h1>{/if}
		<DemoNote />
		<Notice failure={gone ? null : rig.error} onretry={() => rig.refetch()} />
		{#key viewKey}
			<svelte:boundary>
				{#if !View}
					<Missing />
				{:else if gone && place && !isOfTheHouse(place.station)}
					<Missing rig={desk.selection.rigId} />
				{:else}
					<View />
				{/if}
				{#snippet failed(error, reset)}
					<Broken {error} {reset} />
				{/snippet}
			</svelte:boundary>
		{/key}
		<LongWork />
	</main>
</div>
<KeysHelp bind:open={helpOpen} />

<style>
	.frame {
		display: grid;
		grid-template: 'top top' auto 'rail main' minmax(0, 1fr) / 8rem minmax(0, 1fr);
		height: 100dvh;
	}
	main {
		grid-area: main;
		min-width: 0;
		min-height: 0;
		display: flex;
		flex-direction: column;
		overflow-y: auto;
		outline: none;
	}
	.skip {
		position: absolute;
		left: -999px;
	}
	.skip:focus {
		left: 0.5rem;
		top: 0.5rem;
		z-index: 40;
		padding: 0.5rem 0.9rem;
		background: var(--accent);
		color: var(--accent-ink);
	}
	@media (min-width: 721px) {
		.on-phone {
			display: none;
		}
	}
	@media (max-width: 720px) {
		/* These say themselves whose rig it is, and need the room. */
		.on-stage > :global(header.top),
		.on-stage main > :global(p.note.no-print) {
			display: none;
		}
		.frame {
			grid-template: 'top' auto 'main' minmax(0, 1fr) 'rail' auto / minmax(0, 1fr);
		}
	}
	@media print {
		.frame {
			display: block;
			height: auto;
		}
	}
</style>
