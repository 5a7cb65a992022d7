<!-- What the rig's figures assume, gathered in one place: the few plain questions that would settle it. -->
<script lang="ts">
	import type { RigView } from '../../api/rig-view';
	import { nameOf } from '../../domain/names';
	import { getDesk } from '../../state/desk.svelte';

	let { state }: { state: RigView } = $props();
	const desk = getDesk();

	const asked = $derived(state.analysis.assumed ?? []);
	/** The first run a device is on: there the answer can be given. */
	const runOf = (id: string): string | undefined =>
		(state.rig.runs ?? []).find((run) =>
			(run.joins ?? []).some((join) => [join.a, join.b].some((end) => end.startsWith(`${id}.`)))
		)?.id;
	const count = $derived(asked.reduce((sum, one) => sum + Math.max(1, one.gear.length), 0));
</script>

{#if asked.length > 0}
	<details class="assumed no-print">
		<summary>{count === 1 ? '1 assumption' : `${count} assumptions`} to confirm</summary>
		<ul>
			{#each asked as one (one.code)}
				<li>
					<b>{one.question}</b>
					{#each one.gear as gear (gear)}
						{@const run = runOf(gear)}
						{#if run}
							<button type="button" class="name" onclick={() => desk.selection.select(run)}
								>{nameOf(state.rig, gear)}</button
							>
						{:else}
							<span class="name">{nameOf(state.rig, gear)}</span>
						{/if}
					{/each}
					<span class="quiet why">{one.why}</span>
				</li>
			{/each}
		</ul>
	</details>
{/if}

<style>
	.assumed {
		font-size: 0.875rem;
	}
	summary {
		cursor: pointer;
		color: var(--dim);
	}
	ul {
		display: grid;
		gap: 0.7rem;
		padding: 0.7rem 0 0.3rem;
	}
	.name {
		border-bottom: 1px dotted var(--line-strong);
		margin-left: 0.5rem;
		min-height: 1.5rem;
	}
	.why {
		display: block;
		font-size: 0.8125rem;
	}
</style>
