<!-- One thing of the cupboard, or several alike: what it is, how it is, who has it next. It opens to be changed. -->
<script lang="ts">
	import { CONDITIONS, type Entry } from '../../domain/cupboard';
	import { length } from '../../domain/format';
	import { dayOf, hoursOf } from '../../domain/occasions';
	import Tape from '../marks/Tape.svelte';
	import EntryInside from './EntryInside.svelte';

	interface Props {
		entry: Entry;
		unit: 'm' | 'ft';
		rigName: string | null;
		onchange: () => Promise<void>;
	}
	let { entry, unit, rigName, onchange }: Props = $props();

	let open = $state(false);
	const [first, ...later] = $derived(entry.holdings);
</script>

<li>
	<details bind:open>
		<summary class:unfit={entry.condition === 'faulty' || entry.condition === 'away'}>
			<span class="name opens"
				><span class="figure">{entry.count > 1 ? `${entry.count} ×` : entry.name}</span></span
			>
			<span class="part">{entry.part}</span>
			<span class="figure length">{entry.length_m ? length(entry.length_m, unit) : ''}</span>
			<span class="condition {entry.condition}"
				>{#if entry.condition !== 'good'}<b>{CONDITIONS[entry.condition]}</b>{/if}
				{entry.remark}</span
			>
			<span class="held">
				{#if first}
					<Tape name={first.rig_name} size="small" />
					<span class="quiet"
						>{dayOf(first.starts_at)}, {hoursOf(first)}{later.length > 0
							? `, and ${later.length} more`
							: ''}</span
					>
				{:else}<span class="quiet free">free</span>{/if}
			</span>
		</summary>
		{#if open}
			<EntryInside {entry} {rigName} {onchange} />
		{/if}
	</details>
</li>

<style>
	li {
		border-bottom: 1px solid var(--line);
	}
	summary {
		display: grid;
		grid-template-columns: minmax(0, 9.5rem) minmax(0, 1fr) 4rem minmax(0, 15rem) minmax(0, 21rem);
		gap: 0.3rem 1rem;
		align-items: center;
		padding: 0.2rem 0.25rem;
		min-height: 2.1rem;
		cursor: pointer;
	}
	.unfit .name,
	.unfit .part {
		color: var(--dim);
	}
	.length {
		text-align: right;
	}
	.part,
	.condition,
	.held {
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		font-size: 0.875rem;
	}
	.suspect b {
		color: var(--watch);
	}
	.faulty b,
	.away b {
		color: var(--fix);
	}
	.held {
		display: flex;
		gap: 0.6rem;
		align-items: center;
	}
	@media (max-width: 720px) {
		summary {
			grid-template-columns: minmax(4.5rem, auto) minmax(0, 1fr) auto;
		}
		.free {
			display: none;
		}
		.name::before {
			display: none;
		}
		.held {
			grid-column: 1 / -1;
		}
		.condition:not(.good) {
			grid-column: 1 / -1;
		}
	}
</style>
