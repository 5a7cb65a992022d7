<!-- Runs whose worst finding would be another, before and after. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { addressOf } from '../../domain/address';
	import GradeMark from '../marks/GradeMark.svelte';
	import Tape from '../marks/Tape.svelte';

	let { changes, rigId }: { changes: Schemas['VenueComparison']['runs']; rigId: string } = $props();
</script>

{#if changes.length === 0}
	<p class="quiet">No run of this rig gets another verdict by it.</p>
{:else}
	<ul aria-label="Runs that change">
		{#each changes as change (change.run)}
			<li>
				<a href="#{addressOf({ station: 'runs', rig: rigId, run: change.run })}"
					><Tape name={change.name} size="small" /></a
				>
				<span class="was"><GradeMark grade={change.before.grade} words="" /> {change.before.sentence}</span>
				<span><GradeMark grade={change.after.grade} words="" /> {change.after.sentence}</span>
			</li>
		{/each}
	</ul>
{/if}

<style>
	ul {
		width: 100%;
	}
	li {
		display: grid;
		grid-template-columns: 8rem minmax(0, 1fr) minmax(0, 1fr);
		gap: 0.3rem 1rem;
		align-items: start;
		padding: 0.35rem 0;
		border-top: 1px solid var(--line);
		font-size: 0.875rem;
	}
	.was {
		color: var(--dim);
	}
	@media (max-width: 720px) {
		li {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
