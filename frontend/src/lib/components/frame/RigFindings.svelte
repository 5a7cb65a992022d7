<!-- What is to say about the whole rig at once: a hazard or a limit no single run can tell, above the runs. -->
<script lang="ts">
	import type { RigView } from '../../api/rig-view';
	import { nameOf } from '../../domain/names';
	import { getDesk } from '../../state/desk.svelte';
	import GradeMark from '../marks/GradeMark.svelte';

	let { state }: { state: RigView } = $props();
	const desk = getDesk();

	/** Runs named one by one. */
	const NAMED = 6;
	const findings = $derived(state.analysis.findings ?? []);
	const runName = (id: string): string =>
		(state.rig.runs ?? []).find((run) => run.id === id)?.name ?? nameOf(state.rig, id);
</script>

{#if findings.length > 0}
	<section class="of-rig" aria-label="About the whole rig">
		{#each findings as one (one.code + one.subject)}
			<article class={one.grade}>
				<details open={one.grade === 'stop'}>
					<summary>
						<GradeMark grade={one.grade} />
						<span class="sentence">{one.sentence}</span>
					</summary>
					<p>{one.advice}</p>
					{#if one.runs.length > 0}
						<p class="quiet">
							Affects {one.runs.length === 1 ? 'one run' : `${one.runs.length} runs`}:
							{#each one.runs.slice(0, NAMED) as run (run)}
								<button type="button" class="name" onclick={() => desk.selection.select(run)}
									>{runName(run)}</button
								>
							{/each}
							{#if one.runs.length > NAMED}and {one.runs.length - NAMED} more{/if}
						</p>
					{/if}
				</details>
			</article>
		{/each}
	</section>
{/if}

<style>
	/* It stays in sight above the list, and leaves most of the screen to it. */
	.of-rig {
		flex: none;
		max-height: 40%;
		overflow-y: auto;
		border-bottom: 1px solid var(--line);
	}
	article {
		font-size: 0.9375rem;
		border-left: 4px solid var(--watch);
		background: var(--watch-wash);
		padding: 0 1.1rem 0 0.7rem;
	}
	article + article {
		border-top: 1px solid var(--line);
	}
	summary {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		min-height: 2.1rem;
		cursor: pointer;
	}
	.sentence {
		font-weight: 600;
		min-width: 0;
	}
	details:not([open]) .sentence {
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	p {
		max-width: 60rem;
		padding-bottom: 0.4rem;
	}
	.stop {
		border-color: var(--stop);
		background: var(--stop-wash);
	}
	.fix {
		border-color: var(--fix);
		background: var(--fix-wash);
	}
	.name {
		border-bottom: 1px dotted var(--line-strong);
		margin-left: 0.4rem;
		min-height: 1.5rem;
	}
</style>
