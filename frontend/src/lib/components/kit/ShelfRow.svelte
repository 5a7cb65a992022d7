<!-- The same things of one length: a mark for each that says whether it is in use, and the runs that use them. -->
<script lang="ts">
	import { addressOf } from '../../domain/address';
	import { ownedEdit, removeEdit, type Shelf } from '../../domain/kit';
	import { length } from '../../domain/format';
	import { getDesk } from '../../state/desk.svelte';
	import PieceCondition from './PieceCondition.svelte';
	import Tape from '../marks/Tape.svelte';
	import LeadTester from '../tester/LeadTester.svelte';

	/** `short`: what has to be got of it, not what there is. */
	let { shelf, short, rigId, unit }: { shelf: Shelf; short: boolean; rigId: string; unit: 'm' | 'ft' } =
		$props();
	const desk = getDesk();

	/** The piece that is on the tester. */
	let testing = $state<string | null>(null);
	const MOST_MARKS = 24;
	const MOST_NAMES = 4;

	const own = $derived(shelf.pieces.filter(({ item }) => (item.owned ?? true) !== short));
	const all = $derived.by(() => {
		const here = new Set(own.flatMap(({ runs }) => runs.map(({ id }) => id)));
		return shelf.users.filter(({ id }) => here.has(id));
	});
	const count = $derived.by(() => {
		if (shelf.installed) return 'built in';
		return short ? `${shelf.toGet} to get` : `${shelf.free} of ${shelf.owned} free`;
	});
</script>

<li>
	<details>
		<summary>
			<span class="name opens">{shelf.name}</span>
			<span class="figure length">{shelf.lengthM ? length(shelf.lengthM, unit) : ''}</span>
			<span class="marks" aria-hidden="true">
				{#each own.slice(0, MOST_MARKS) as { item, runs } (item.id)}
					<i class:used={runs.length > 0} class:missing={short}></i>
				{/each}
				{#if own.length > MOST_MARKS}<small>+{own.length - MOST_MARKS}</small>{/if}
			</span>
			<span class="count" class:short class:none={!short && !shelf.installed && shelf.free === 0}
				>{count}</span
			>
			<span class="users">
				{#each all.slice(0, MOST_NAMES) as run (run.id)}<Tape name={run.name} size="small" />{/each}
				{#if all.length > MOST_NAMES}<small>and {all.length - MOST_NAMES} more</small>{/if}
			</span>
		</summary>
		<ul class="pieces">
			{#each own as { item, runs } (item.id)}
				<li>
					<span class="figure tag">{item.tag}</span>
					<span class="quiet">
						{#each runs as run, place (run.id)}{place > 0 ? ', ' : 'in '}<a
								href="#{addressOf({ rig: rigId, station: 'runs', run: run.id })}">{run.name}</a
							>{:else}{item.owned ? 'free' : 'in no run'}{/each}
					</span>
					{#if !item.installed}
						<label class="own no-print">
							<input
								type="checkbox"
								checked={item.owned ?? true}
								onchange={(event) => void desk.sync.edit(ownedEdit(item, event.currentTarget.checked))}
							/>
							owned
						</label>
						<PieceCondition {item} />
						<button
							type="button"
							class="in-text no-print"
							aria-expanded={testing === item.id}
							onclick={() => (testing = testing === item.id ? null : item.id)}
							>Test<span class="sr-only"> {item.tag}</span></button
						>
						<button
							type="button"
							class="out no-print"
							disabled={runs.length > 0}
							title={runs[0] ? `Remove it from ${runs[0].name} first` : `Remove ${item.tag} from the kit`}
							aria-label="Remove {item.tag} from the kit"
							onclick={() => void desk.sync.edit(removeEdit(item))}>Remove</button
						>
						{#if testing === item.id}
							<div class="bench">
								<LeadTester of={{ rig: rigId, kit: item.id }} onsaved={() => desk.sync.watch()} />
							</div>
						{/if}
					{/if}
				</li>
			{/each}
		</ul>
	</details>
</li>

<style>
	li {
		border-bottom: 1px solid var(--line);
	}
	summary {
		display: grid;
		grid-template-columns: minmax(0, 22rem) 4.5rem minmax(7rem, 12rem) 7rem minmax(0, 1fr);
		gap: 1rem;
		align-items: center;
		padding: 0.3rem 0.25rem;
		min-height: 2.1rem;
		cursor: pointer;
	}
	.length {
		text-align: right;
	}
	/* A piece each: filled in use, outlined free, dashed still to be got. */
	.marks {
		display: flex;
		flex-wrap: wrap;
		gap: 3px;
		align-items: center;
	}
	.marks i {
		width: 7px;
		height: 14px;
		border: 1px solid var(--dim);
	}
	.marks i.used {
		background: var(--dim);
	}
	.marks i.missing {
		background: none;
		border: 1px dashed var(--fix);
	}
	.count {
		text-align: right;
		font-size: 0.875rem;
	}
	.count.short {
		color: var(--fix);
	}
	.none,
	small {
		color: var(--dim);
	}
	.users {
		display: flex;
		flex-wrap: nowrap;
		gap: 0.35rem;
		align-items: center;
		overflow: hidden;
		white-space: nowrap;
	}
	.pieces {
		padding: 0 0.25rem 0.6rem 1rem;
	}
	.pieces li {
		display: grid;
		grid-template-columns: 8rem minmax(0, 20rem) auto minmax(0, 24rem) auto;
		gap: 1rem;
		align-items: center;
		font-size: 0.875rem;
		border: 0;
		min-height: 2rem;
	}
	.pieces a {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	.own {
		display: inline-flex;
		gap: 0.4rem;
		align-items: center;
		min-height: 1.75rem;
	}
	.out {
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 1.75rem;
	}
	.out:disabled {
		color: var(--dim);
		text-decoration: none;
		cursor: not-allowed;
	}
	@media (max-width: 720px) {
		summary {
			grid-template-columns: minmax(0, 1fr) auto;
			gap: 0.3rem 0.8rem;
		}
		.marks,
		.users {
			display: none;
		}
		.count {
			grid-column: 1 / -1;
			text-align: left;
		}
		.pieces li {
			grid-template-columns: 5rem minmax(0, 1fr) auto;
			gap: 0.6rem;
		}
	}
</style>
