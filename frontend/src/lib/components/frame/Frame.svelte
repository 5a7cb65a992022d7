<!-- Top bar, stations, the open view, and whatever went wrong said across the top. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import Router, { router } from 'svelte-spa-router';
	import { rigQuery, rigsQuery } from '../../api/queries';
	import { Trouble } from '../../api/client';
	import { routes } from '../../../routes/routes';
	import { getDesk } from '../../state/desk.svelte';
	import Broken from './Broken.svelte';
	import KeysHelp from './KeysHelp.svelte';
	import Notice from './Notice.svelte';
	import Rail from './Rail.svelte';
	import TopBar from './TopBar.svelte';
	import { shortcuts } from '../../state/shortcuts';

	const WATCH_MS = 1000;
	const HIDDEN_EVERY = 5;
	const desk = getDesk();
	let helpOpen = $state(false);

	const rigs = createQuery(() => rigsQuery());
	const rigId = $derived(desk.rigId ?? rigs.data?.[0]?.id ?? null);
	const rig = createQuery(() => ({ ...rigQuery(rigId ?? ''), enabled: rigId !== null }));

	$effect(() => {
		if (desk.rigId === null && rigId !== null) desk.open(rigId);
	});
	// What others save comes on screen within a second; a page nobody looks at asks less often.
	$effect(() => {
		let ticks = 0;
		const timer = setInterval(() => {
			ticks += 1;
			if (!document.hidden || ticks % HIDDEN_EVERY === 0) void desk.watch();
		}, WATCH_MS);
		return () => clearInterval(timer);
	});
	// A rig that is gone (deleted elsewhere, or another database) must not leave an empty page.
	$effect(() => {
		if (rig.error instanceof Trouble && rig.error.status === 404) desk.forget();
	});
</script>

<svelte:window onkeydown={(event) => shortcuts(event, desk, () => (helpOpen = !helpOpen))} />

<a class="skip" href="#main">Skip to the runs</a>
<div class="frame">
	<TopBar state={rig.data} onhelp={() => (helpOpen = true)} />
	<Rail state={rig.data} />
	<main id="main" tabindex="-1">
		<Notice
			offline={rig.isError && !(rig.error instanceof Trouble && rig.error.status === 404)}
			onretry={() => rig.refetch()}
		/>
		{#key router.location}
			<svelte:boundary>
				<Router {routes} />
				{#snippet failed(error, reset)}
					<Broken {error} {reset} />
				{/snippet}
			</svelte:boundary>
		{/key}
	</main>
</div>
<KeysHelp bind:open={helpOpen} />

<style>
	.frame {
		display: grid;
		grid-template: 'top top' auto 'rail main' minmax(0, 1fr) / 7.5rem minmax(0, 1fr);
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
	@media (max-width: 720px) {
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
