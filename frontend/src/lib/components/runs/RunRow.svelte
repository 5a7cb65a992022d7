<!-- A run as a line of the list: number, name, way, socket, levels and verdict. Opened, all there is to it follows. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { Schemas } from '../../api/client';
	import { lastTimeQuery } from '../../api/log';
	import { runQuery, type RigView } from '../../api/rig-view';
	import { humOf, isUnpowered, shownInput } from '../../domain/inputs';
	import { levelsOf } from '../../domain/ladder';
	import { socketWords } from '../../domain/sockets';
	import { getDesk } from '../../state/desk.svelte';
	import NextFrame from '../controls/NextFrame.svelte';
	import GradeMark from '../marks/GradeMark.svelte';
	import Tape from '../marks/Tape.svelte';
	import LevelBar from './LevelBar.svelte';
	import OpenRun from './OpenRun.svelte';
	import Wires from './Wires.svelte';

	interface Props {
		state: RigView;
		run: Schemas['RunSummary'];
		selected: boolean;
		/** Whether the destination is said by a heading above. */
		grouped: boolean;
	}
	let { state, run, selected, grouped }: Props = $props();
	const desk = getDesk();

	const details = createQuery(() => runQuery(state.rig.id, run.key));
	const named = $derived((state.rig.runs ?? []).find((one) => one.id === run.run));
	const lastTimes = createQuery(() => lastTimeQuery(state.rig.id));
	const had = $derived(lastTimes.data?.[run.run]);
	const name = $derived(named?.name ?? run.run);
	const open = $derived(selected && desk.selection.opened);
	const input = $derived(details.data ? shownInput(details.data, null) : undefined);
	const levels = $derived(details.data?.result.data ? undefined : levelsOf(input));
</script>

<article class="run {run.grade}" class:selected class:open aria-current={selected} data-run={run.run}>
	<!-- The name is the button; the rest of the line only makes it larger for a pointer. -->
	<!-- svelte-ignore a11y_click_events_have_key_events, a11y_no_static_element_interactions -->
	<header
		class="columns"
		onclick={(event) => {
			if (event.shiftKey || event.ctrlKey || event.metaKey) desk.selection.mark(run.run, event.shiftKey);
			else desk.selection.toggle(run.run, selected);
		}}
	>
		<input
			type="checkbox"
			class="mark no-print"
			aria-label="Mark {name}"
			checked={desk.selection.marked.has(run.run)}
			onclick={(event) => {
				event.stopPropagation();
				desk.selection.mark(run.run, event.shiftKey);
			}}
		/>
		<span class="number figure">{named?.number}</span>
		<button
			type="button"
			class="pick-run"
			aria-expanded={open}
			onclick={(event) => {
				event.stopPropagation();
				desk.selection.toggle(run.run, selected);
			}}><Tape {name} /></button
		>
		<span class="way">
			{#if details.data}
				{@const drawing = details.data.drawing}
				<NextFrame><Wires {drawing} unit={state.rig.length_unit ?? 'm'} /></NextFrame>
			{/if}
		</span>
		<span class="socket">{details.data ? socketWords(details.data.drawing, !grouped) : ''}</span>
		<span class="levels">
			{#if levels}
				<NextFrame>
					<LevelBar
						{levels}
						humDbu={humOf(input)}
						amplified={input?.loudspeaker != null}
						unpowered={details.data !== undefined && isUnpowered(details.data)}
					/>
				</NextFrame>
			{/if}
		</span>
		<span class="verdict-of"><GradeMark grade={run.grade} size={14} /></span>
		<span class="sentence" title={run.sentence}
			>{#if had}<b class="had">Last time: {had.words}.</b>
			{/if}{open ? '' : run.sentence}</span
		>
	</header>
	{#if open}
		{#if details.data}
			<OpenRun {state} run={details.data} brief={desk.selection.isBrief} />
		{:else if details.isError}
			<p class="pending">
				This run’s figures could not be fetched.
				<button type="button" class="btn preset-tonal" onclick={() => details.refetch()}>Try again</button>
			</p>
		{:else}
			<div
				class="pending placeholder animate-pulse"
				role="status"
				aria-label="Fetching this run’s figures"
			></div>
		{/if}
	{/if}
</article>

<style>
	.run {
		border-left: 4px solid transparent;
		border-bottom: 1px solid var(--line);
	}
	header {
		height: 34px;
		padding: 0 0.9rem 0 0.7rem;
		cursor: pointer;
	}
	header:hover {
		background: var(--panel);
	}
	.selected {
		background: var(--panel);
		border-left-color: var(--grade);
	}
	.stop {
		--grade: var(--stop);
	}
	.fix {
		--grade: var(--fix);
	}
	.watch {
		--grade: var(--watch);
	}
	.clear {
		--grade: var(--clear);
	}
	.had {
		color: var(--fix);
		font-weight: 600;
	}
	.number {
		color: var(--dim);
		text-align: right;
	}
	.mark {
		width: 16px;
		height: 16px;
		accent-color: var(--accent);
		opacity: 0.55;
	}
	.mark:checked,
	.mark:focus-visible,
	header:hover .mark {
		opacity: 1;
	}
	.pick-run {
		display: flex;
		align-items: center;
		min-height: 1.75rem;
		min-width: 0;
	}
	.way {
		min-width: 0;
	}
	.socket,
	.sentence {
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
		font-size: 0.875rem;
	}
	.socket {
		color: var(--dim);
	}
	.levels {
		line-height: 0;
	}
	.verdict-of {
		font-size: 0.875rem;
	}
	.pending {
		padding: 1rem;
	}
	.placeholder {
		min-height: 18rem;
		margin: 1rem;
		background: var(--raised);
	}
	@media (max-width: 980px) {
		header {
			height: auto;
			min-height: 48px;
			grid-template:
				'mark number name verdict' auto 'mark number sentence sentence' auto / 1.2rem 1.6rem minmax(0, 1fr)
				auto;
			row-gap: 0.1rem;
			padding-block: 0.35rem;
		}
		.mark {
			grid-area: mark;
		}
		.number {
			grid-area: number;
			align-self: start;
			padding-top: 0.2rem;
		}
		.pick-run {
			grid-area: name;
		}
		.verdict-of {
			grid-area: verdict;
		}
		.sentence {
			grid-area: sentence;
			color: var(--dim);
		}
		.open .sentence,
		.way,
		.socket,
		.levels {
			display: none;
		}
	}
</style>
