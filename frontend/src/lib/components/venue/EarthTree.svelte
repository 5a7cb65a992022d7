<!-- The protective earth from the boards down: what hangs on what, what is plugged in where, what is known. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { nowhere, treeOf } from '../../domain/earth-tree';
	import Tape from '../marks/Tape.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();

	const lines = $derived(treeOf(rig));
	const unsaid = $derived(nowhere(rig));
</script>

<section aria-labelledby="earth-heading">
	<h3 id="earth-heading" class="heading">Earth, from the main bar down</h3>
	{#if lines.length === 0}
		<p class="quiet">
			Nothing is known of this building yet: every plug is assumed to be on another circuit.
		</p>
	{:else}
		<ul>
			{#each lines as { point, depth, devices, facts } (point.id)}
				<li style:--depth={depth} class={point.kind}>
					<span class="name">{point.name}</span>
					<span class="facts">{facts.join(', ')}</span>
					<span class="devices">
						{#each devices as name (name)}<Tape {name} size="small" />{/each}
					</span>
				</li>
			{/each}
		</ul>
	{/if}
	{#if unsaid.length > 0}
		<p class="unsaid">
			<b>Not known where they are plugged in:</b>
			{#each unsaid as name (name)}<Tape {name} size="small" />{/each}
			<span class="quiet">Open their run at <a href="#/">Runs</a> and choose the mains plug.</span>
		</p>
	{/if}
</section>

<style>
	section {
		display: grid;
		gap: 0.5rem;
	}
	li {
		display: grid;
		grid-template-columns: minmax(12rem, 22rem) minmax(0, 1fr) minmax(0, 1.4fr);
		gap: 0.3rem 1rem;
		align-items: center;
		min-height: 1.9rem;
		border-bottom: 1px solid var(--line);
		font-size: 0.875rem;
	}
	/* A conductor leads down to each, from the one above. */
	.name {
		position: relative;
		margin-left: calc(var(--depth) * 1.3rem);
		padding: 0.25rem 0 0.25rem 0.9rem;
		border-left: 3px solid var(--wire-screen);
	}
	.board .name,
	.building .name {
		font-weight: 600;
	}
	.facts {
		color: var(--dim);
	}
	.devices,
	.unsaid {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem;
		align-items: center;
	}
	.unsaid {
		font-size: 0.875rem;
	}
	a {
		text-decoration: underline;
	}
	@media (max-width: 720px) {
		li {
			grid-template-columns: minmax(0, 1fr);
			padding-bottom: 0.3rem;
		}
		.facts,
		.devices {
			margin-left: calc(var(--depth) * 1.3rem + 0.9rem);
		}
		.facts:empty,
		.devices:empty {
			display: none;
		}
	}
</style>
