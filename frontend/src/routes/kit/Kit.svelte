<!-- What is owned: entered in plain words or by file, looked through by kind, and parts of one's own. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { rigQuery } from '../../lib/api/queries';
	import FromCupboard from '../../lib/components/kit/FromCupboard.svelte';
	import KitLines from '../../lib/components/kit/KitLines.svelte';
	import OwnParts from '../../lib/components/kit/OwnParts.svelte';
	import Shelves from '../../lib/components/kit/Shelves.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const rig = createQuery(() => ({
		...rigQuery(desk.selection.rigId ?? ''),
		enabled: desk.selection.rigId !== null
	}));
</script>

<svelte:head><title>Kit · Ruvak</title></svelte:head>

{#if rig.isError && !rig.data}
	<p class="alone">The kit could not be fetched. {rig.error.message}</p>
{:else if !rig.data}
	<p class="alone quiet">Fetching the kit…</p>
{:else}
	<section class="view">
		<header>
			<div>
				<h2>Kit</h2>
				<p class="quiet">
					What this rig has drawn from the <a href="#/cupboard">cupboard</a>, what is its own, and what is
					short.
				</p>
			</div>
			<a class="btn preset-tonal no-print" href="/api/rigs/{rig.data.rig.id}/kit.csv" download
				>Export as CSV</a
			>
		</header>
		<FromCupboard rig={rig.data.rig} />
		{#if desk.may('plan')}<KitLines rigId={rig.data.rig.id} />{/if}
		<Shelves rig={rig.data.rig} />
		{#if desk.may('plan')}<OwnParts rig={rig.data.rig} />{/if}
	</section>
{/if}

<style>
	.alone {
		padding: 1.25rem 1.5rem;
	}
	header a:not(.btn) {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
</style>
