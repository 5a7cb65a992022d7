<!-- What readings say: good, a fault, or which it can still be and what to read next. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';

	let {
		diagnosis,
		hasRead,
		chosen = $bindable()
	}: { diagnosis: Schemas['Diagnosis']; hasRead: boolean; chosen: number | null } = $props();
	const PERCENT = 100;
	const name = $props.id();
	const grade = $derived(
		diagnosis.verdict === 'good' ? 'clear' : diagnosis.verdict === 'unfinished' ? 'watch' : 'stop'
	);
</script>

<div class="reads {grade}" aria-live="polite">
	{#if !hasRead}
		<p class="quiet">Nothing is read yet. {diagnosis.next ? `Begin with ${diagnosis.next.words}.` : ''}</p>
	{:else}
		<p class="verdict">{diagnosis.words}</p>
		{#if diagnosis.explanations.length > 1}
			<ul>
				{#each diagnosis.explanations as each, at (at)}
					<li>
						<label>
							<input type="radio" {name} value={at} bind:group={chosen} />
							<span class="figure share">{Math.round(each.share * PERCENT)} %</span>
							{each.words}
						</label>
					</li>
				{/each}
			</ul>
			<p class="quiet">Looked inside? Choose what it is.</p>
		{/if}
		{#if diagnosis.unusual.length > 0}
			<details>
				<summary class="quiet">Read otherwise than it should be: {diagnosis.unusual.length}</summary>
				<ul class="quiet">
					{#each diagnosis.unusual as words (words)}<li>{words}</li>{/each}
				</ul>
			</details>
		{/if}
	{/if}
</div>

<style>
	.reads {
		display: grid;
		gap: 0.6rem;
		border-left: 4px solid var(--line);
		padding-left: 0.8rem;
	}
	.reads:has(.verdict).clear {
		border-color: var(--clear);
	}
	.reads:has(.verdict).watch {
		border-color: var(--watch);
	}
	.reads:has(.verdict).stop {
		border-color: var(--stop);
	}
	.verdict {
		font-size: 1.05rem;
		font-weight: 600;
	}
	label {
		display: flex;
		gap: 0.5rem;
		align-items: baseline;
		min-height: 1.75rem;
		cursor: pointer;
	}
	.share {
		white-space: nowrap;
	}
	details ul {
		padding-left: 1rem;
		list-style: disc;
		font-size: 0.875rem;
	}
</style>
