<!-- The building: its earth as typed lines and as a tree, how it stands to the house's venue, what is built in. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { rigQuery } from '../../lib/api/queries';
	import Only from '../../lib/components/frame/Only.svelte';
	import HouseRules from '../../lib/components/house/HouseRules.svelte';
	import EarthTree from '../../lib/components/venue/EarthTree.svelte';
	import HouseVenue from '../../lib/components/venue/HouseVenue.svelte';
	import Installed from '../../lib/components/venue/Installed.svelte';
	import VenueLines from '../../lib/components/venue/VenueLines.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const rig = createQuery(() => ({
		...rigQuery(desk.selection.rigId ?? ''),
		enabled: desk.selection.rigId !== null
	}));
</script>

<svelte:head><title>Venue · Ruvak</title></svelte:head>

{#if rig.isError && !rig.data}
	<p class="alone">The venue could not be fetched. {rig.error.message}</p>
{:else if !rig.data}
	<p class="alone quiet">Fetching the venue…</p>
{:else}
	<section class="venue">
		<header>
			<h2>{rig.data.rig.venue.name}</h2>
			<p class="quiet">
				Where every plug gets its earth decides most of the hum. Type what you can see; nothing here needs a
				meter.
			</p>
		</header>
		<HouseVenue state={rig.data} />
		{#if desk.may('plan')}<VenueLines rigId={rig.data.rig.id} />{/if}
		<EarthTree rig={rig.data.rig} />
		<Installed rig={rig.data.rig} />
		<Only may="plan"><HouseRules rig={rig.data.rig} /></Only>
		<p class="caution">
			Reading what is printed on a board is safe; opening it is for a licensed electrician, and so is any work
			on earths. Local rules come first.
		</p>
	</section>
{/if}

<style>
	.venue {
		padding: 1.25rem 1.5rem 3rem;
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		gap: 1.3rem;
		max-width: 76rem;
	}
	.alone {
		padding: 1.25rem 1.5rem;
	}
	h2 {
		font-size: 1.4rem;
	}
	.caution {
		font-size: 0.875rem;
		padding-left: 0.8rem;
		border-left: 3px solid var(--fix);
		max-width: 46rem;
	}
	@media (max-width: 720px) {
		.venue {
			padding: 1rem;
		}
	}
</style>
