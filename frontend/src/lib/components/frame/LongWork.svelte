<!-- What is being computed in the queue: what, how far, and a way to end it. -->
<script lang="ts">
	import { longWorks } from '../../state/long-work.svelte';
	import type { Schemas } from '../../api/client';

	const PERCENT = 100;
	const percent = (work: Schemas['WorkState']): number => Math.round(work.share * PERCENT);
	const standing = (work: Schemas['WorkState']): string => {
		if (work.state === 'running') return `${percent(work)} %`;
		return work.before === 0 ? 'about to start' : `${work.before} before it`;
	};
</script>

{#if longWorks.shown.length > 0}
	<section class="works" aria-label="Being computed" aria-live="polite">
		{#each longWorks.shown as work (work.id)}
			<div class="work">
				<p id="work-{work.id}">{work.words}</p>
				<progress max="1" value={work.state === 'running' ? work.share : 0} aria-labelledby="work-{work.id}"
				></progress>
				<span class="figure">{standing(work)}</span>
				<button
					class="btn preset-tonal"
					onclick={() => void longWorks.cancel({ rig_id: work.rig_id, work_id: work.id })}>Cancel</button
				>
			</div>
		{/each}
	</section>
{/if}

<style>
	.works {
		position: sticky;
		bottom: 0;
		z-index: 6;
		margin-top: auto;
		background: var(--panel);
		border-top: 1px solid var(--line);
	}
	.work {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 0.9rem;
		padding: 0.5rem 1.25rem;
	}
	progress {
		flex: 1 1 10rem;
		height: 0.5rem;
		appearance: none;
		border: 0;
		background: var(--line);
	}
	progress::-webkit-progress-bar {
		background: var(--line);
	}
	progress::-webkit-progress-value {
		background: var(--accent);
	}
	progress::-moz-progress-bar {
		background: var(--accent);
	}
	.figure {
		min-width: 6rem;
	}
</style>
