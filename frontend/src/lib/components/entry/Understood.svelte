<!-- What a typed line was taken to mean: its runs with pieces and verdict, or why not, and ways to go on. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import GradeMark from '../marks/GradeMark.svelte';
	import NeededPieces from './NeededPieces.svelte';
	import OtherWirings from './OtherWirings.svelte';
	import RunReading from './RunReading.svelte';

	interface Props {
		reading: Schemas['Reading'] | undefined;
		trouble: string | null;
		completions: readonly string[];
		picked: number;
		oncomplete: (text: string) => void;
		onadd: () => void;
	}
	let { reading, trouble, completions, picked, oncomplete, onadd }: Props = $props();
	const MOST = 4;
	const runs = $derived(reading?.runs ?? []);
</script>

<div class="understood" aria-live="polite">
	{#if trouble}
		<p class="problem">{trouble}</p>
	{:else if reading}
		{#each reading.problems as problem, index (index)}
			<p class="problem">{problem.sentence}</p>
			{#each problem.suggestions as line (line)}
				<!-- The field keeps the focus, as with the ways to go on. -->
				<button type="button" tabindex="-1" class="suggested" onclick={() => oncomplete(line)}>
					<span class="quiet">Did you mean</span>
					{line}
				</button>
			{/each}
		{/each}
		{#each reading.taken_for as words (words)}<p class="quiet taken">{words}</p>{/each}
		{#each runs.slice(0, MOST) as run (run.run)}
			<RunReading {run} drawn={runs.length === 1} />
		{/each}
		{#if runs.length > MOST}
			<p class="quiet">and {runs.length - MOST} more, the last to {runs.at(-1)?.to_words}</p>
		{/if}
		{#if runs.length > 1}<NeededPieces {runs} />{/if}
		{#if reading.changes}<p>{reading.sentence}</p>{/if}
		{#if reading.edit}
			<p class="add">
				<button type="button" class="btn go" onclick={onadd}>
					{#if reading.changes}Change{:else}Add {runs.length === 1 ? 'this run' : `${runs.length} runs`}{/if}
					<kbd>Enter</kbd>
				</button>
				{#if runs.length > 1}
					{#each ['stop', 'fix', 'watch', 'clear'] as const as grade (grade)}
						{@const count = runs.filter((run) => run.grade === grade).length}
						{#if count > 0}<GradeMark {grade} words={`${count} ${grade}`} />{/if}
					{/each}
				{/if}
			</p>
		{/if}
		{#if reading.alternatives.length > 0}
			<OtherWirings alternatives={reading.alternatives} ontake={oncomplete} />
		{/if}
	{/if}
</div>
{#if completions.length > 0}
	<ul role="listbox" aria-label="Ways to go on">
		{#each completions as text, index (text)}
			<li id="completion-{index}" role="option" aria-selected={index === picked}>
				<!-- The field keeps the focus, so the list is walked from there. -->
				<button type="button" tabindex="-1" class:picked={index === picked} onclick={() => oncomplete(text)}>
					<span>{text}</span>{#if index === Math.max(0, picked)}<kbd>Tab</kbd>{/if}
				</button>
			</li>
		{/each}
	</ul>
{/if}

<style>
	.understood {
		padding: 0.8rem 1rem;
		display: grid;
		gap: 0.55rem;
	}
	.understood:empty {
		display: none;
	}
	.problem {
		border-left: 3px solid var(--fix);
		padding-left: 0.7rem;
	}
	.suggested {
		text-align: left;
		padding-left: 0.95rem;
	}
	.suggested:hover {
		color: var(--accent);
	}
	.taken {
		font-size: 0.875rem;
	}
	.add {
		display: flex;
		align-items: center;
		gap: 1rem;
	}
	kbd {
		font-size: 0.75rem;
		border: 1px solid currentColor;
		border-radius: 3px;
		padding: 0 0.35rem;
	}
	ul {
		border-top: 1px solid var(--line);
		padding: 0.3rem 0;
	}
	li button {
		display: flex;
		justify-content: space-between;
		width: 100%;
		text-align: left;
		padding: 0.28rem 1rem;
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 0.8125rem;
		color: var(--ink);
	}
	li button:hover,
	.picked {
		background: var(--line);
	}
</style>
