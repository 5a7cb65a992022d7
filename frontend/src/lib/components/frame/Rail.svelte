<!-- The stations that exist, in working order. On a phone they lie along the foot. -->
<script lang="ts">
	import type { RigView } from '../../api/rig-view';
	import { router } from 'svelte-spa-router';
	import { addressOf, placeOf } from '../../domain/address';
	import { getDesk } from '../../state/desk.svelte';
	import { STATIONS, type Station } from '../../domain/stations';
	import type { StationViews } from './station-views';

	/** `only`: those that are at hand just now. */
	let { state, views, only }: { state: RigView | undefined; views: StationViews; only?: readonly Station[] } =
		$props();

	const desk = getDesk();
	const isShown = (id: Station): boolean =>
		only !== undefined
			? only.includes(id)
			: id === 'people'
				? desk.may('people')
				: !(desk.byLink && (id === 'weeks' || id === 'cupboard'));
	const place = $derived(placeOf(router.location));
	const here = $derived(place?.station);
	const open = $derived.by(() => {
		const verdict = state?.analysis.verdict;
		return verdict ? verdict.stop + verdict.fix + verdict.watch : 0;
	});
</script>

<nav class="rail no-print" aria-label="Stations">
	{#each STATIONS.filter(({ id }) => isShown(id)) as station (station.id)}
		{@const Icon = views[station.id].icon}
		<a
			href="#{addressOf({
				station: station.id,
				rig: desk.selection.rigId ?? place?.rig ?? null,
				run: station.id === 'runs' ? desk.selection.runId : null
			})}"
			class:here={here === station.id}
			aria-current={here === station.id ? 'page' : undefined}
			title="{station.name} ({station.key})"
		>
			<Icon size={17} aria-hidden="true" />
			<span>{station.name}</span>
			{#if station.id === 'runs' && open > 0}<span
					class="figure count"
					role="img"
					aria-label="{open} to look at">{open}</span
				>{/if}
		</a>
	{/each}
</nav>

<style>
	.rail {
		grid-area: rail;
		display: flex;
		flex-direction: column;
		padding-top: 0.75rem;
		border-right: 1px solid var(--line);
	}
	a {
		display: flex;
		align-items: center;
		gap: 0.6rem;
		padding: 0.55rem 0.9rem;
		color: var(--dim);
		text-decoration: none;
		border-left: 3px solid transparent;
	}
	a:hover {
		color: var(--ink);
		background: var(--panel);
		text-decoration: none;
	}
	a :global(svg) {
		flex-shrink: 0;
	}
	.here {
		color: var(--ink);
		background: var(--panel);
		border-left-color: var(--accent);
	}
	.count {
		margin-left: auto;
		color: var(--accent);
		font-weight: 600;
	}
	@media (max-width: 720px) {
		.rail {
			flex-direction: row;
			padding: 0;
			border: 0;
			border-top: 1px solid var(--line);
			background: var(--ground);
		}
		.rail {
			overflow-x: auto;
		}
		a {
			flex: 1 0 3.7rem;
			flex-direction: column;
			gap: 0.15rem;
			padding: 0.5rem 0.25rem;
			font-size: 0.8rem;
			border-left: 0;
			border-top: 3px solid transparent;
			position: relative;
		}
		.here {
			border-top-color: var(--accent);
		}
		.count {
			position: absolute;
			top: 0.3rem;
			left: calc(50% + 0.8rem);
		}
	}
</style>
