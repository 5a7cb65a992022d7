<!-- An occasion in a line: day and hours, what it is, its rigs, what is still to be seen to. It opens in place. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import type { Entry } from '../../domain/cupboard';
	import { dayOf, hoursOf, type Occasion } from '../../domain/occasions';
	import Tape from '../marks/Tape.svelte';
	import OccasionInside from './OccasionInside.svelte';

	interface Props {
		occasion: Occasion;
		earlier: Occasion | undefined;
		rigs: readonly Schemas['RigSummary'][];
		entries: readonly Entry[];
		isOpen: boolean;
		isNext: boolean;
		onopen: () => void;
		onagain: () => void;
		onsaid: (occasion: Occasion, said: readonly string[]) => void;
		onchange: () => Promise<void>;
	}
	let { occasion, earlier, rigs, entries, isOpen, isNext, onopen, onagain, onsaid, onchange }: Props =
		$props();

	const open = $derived(occasion.notes.filter(({ done_by }) => done_by === null).length);
	const taken = $derived(
		entries.reduce(
			(sum, { holdings }) =>
				sum + holdings.filter((held) => occasion.rigs.some(({ id }) => id === held.rig)).length,
			0
		)
	);
</script>

<li class:is-open={isOpen} class:next={isNext}>
	<button type="button" class="line" aria-expanded={isOpen} onclick={onopen}>
		<span class="when"
			><b>{dayOf(occasion.starts_at)}</b> <span class="figure">{hoursOf(occasion)}</span></span
		>
		<span class="name">{occasion.name}</span>
		<span class="rigs">
			{#each occasion.rigs as rig (rig.id)}<Tape name={rig.name} size="small" />{:else}<span class="quiet"
					>no rig yet</span
				>{/each}
		</span>
		<span class="counts">
			{#if open > 0}<b class="open-notes">{open} open {open === 1 ? 'note' : 'notes'}</b>{/if}
			<span class="quiet">{taken > 0 ? `${taken} things taken` : ''}</span>
		</span>
	</button>
	{#if isOpen}
		<OccasionInside {occasion} {earlier} {rigs} {entries} {onagain} {onsaid} {onchange} />
	{/if}
</li>

<style>
	li.is-open,
	li.next {
		border-left: 3px solid var(--line-strong);
	}
	li.next {
		border-left-color: var(--accent);
	}
	li {
		border-left: 3px solid transparent;
		border-bottom: 1px solid var(--line);
	}
	.line {
		display: grid;
		grid-template-columns: 14.5rem minmax(0, 16rem) minmax(0, 1fr) 12rem;
		gap: 0.2rem 1.2rem;
		align-items: center;
		width: 100%;
		padding: 0.45rem 0.75rem;
		min-height: 2.4rem;
		text-align: left;
	}
	.line:hover {
		background: var(--panel);
	}
	.when {
		white-space: nowrap;
	}
	.name {
		font-weight: 600;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.rigs {
		display: flex;
		gap: 0.4rem;
		overflow: hidden;
		white-space: nowrap;
	}
	.counts {
		display: flex;
		gap: 0.8rem;
		justify-content: flex-end;
		font-size: 0.875rem;
		white-space: nowrap;
	}
	.open-notes {
		color: var(--watch);
	}
	@media (max-width: 720px) {
		.line {
			grid-template-columns: minmax(0, 1fr) auto;
		}
		.when {
			grid-column: 1 / -1;
		}
		.rigs {
			grid-column: 1 / -1;
			grid-row: 3;
		}
	}
</style>
