<!-- Every run and where its check stands; a press opens its card. -->
<script lang="ts">
	import { inWords, STATE_WORDS, stateOf, type CheckedRun, type Standing } from '../../domain/check';
	import Tape from '../marks/Tape.svelte';
	import StateMark from './StateMark.svelte';

	let {
		runs,
		label,
		there,
		standing,
		at,
		onchoose
	}: {
		runs: readonly CheckedRun[];
		label: string;
		/** Who is at which now. */
		there: ReadonlyMap<string, readonly string[]>;
		standing: ReadonlyMap<string, Standing>;
		at: string | null;
		onchoose: (run: string) => void;
	} = $props();

	const said = (has: Standing | undefined): string => {
		if (has === undefined) return '';
		const heard = has.answer === 'wrong' && has.heard !== null ? inWords(has.heard).toLowerCase() : '';
		return [heard, has.words, has.unsent ? 'on this device' : has.person].filter(Boolean).join(', ');
	};
</script>

<ol aria-label={label}>
	{#each runs as run (run.run)}
		{@const has = standing.get(run.run)}
		{@const state = stateOf(has)}
		<li>
			<button
				type="button"
				class:at={run.run === at}
				aria-current={run.run === at}
				onclick={() => onchoose(run.run)}
			>
				<StateMark {state} />
				<span class="figure">{run.step ? '' : run.number}</span>
				<Tape name={run.name} size="small" />
				<span class="said" class:wrong={state === 'wrong'}
					>{STATE_WORDS[state]}{said(has) ? `, ${said(has)}` : ''}{there.has(run.run)
						? `; ${there.get(run.run)?.join(', ')} there now`
						: ''}</span
				>
			</button>
		</li>
	{/each}
</ol>

<style>
	ol {
		list-style: none;
		display: grid;
		border-top: 1px solid var(--line);
	}
	button {
		display: grid;
		grid-template-columns: 1.4rem 2rem minmax(0, auto) minmax(0, 1fr);
		align-items: center;
		gap: 0.6rem;
		width: 100%;
		min-height: 44px;
		padding: 0.2rem 0.9rem;
		text-align: left;
		border-bottom: 1px solid var(--line);
	}
	button:hover,
	.at {
		background: var(--panel);
	}
	.figure {
		text-align: right;
		color: var(--dim);
	}
	.said {
		color: var(--dim);
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.wrong {
		color: var(--stop);
	}
</style>
