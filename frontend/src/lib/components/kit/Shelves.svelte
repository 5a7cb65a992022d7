<!-- The cupboard by kind: how many, how many free, and each piece by its tag. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { ownedEdit, removeEdit, shelvesOf, type Shelf } from '../../domain/kit';
	import { length } from '../../domain/format';
	import { getDesk } from '../../state/desk.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();

	const GROUPS = [
		['lead', 'Leads'],
		['adapter', 'Adapters'],
		['box', 'Boxes']
	] as const;
	const shelves = $derived(shelvesOf(rig));
	const count = (shelf: Shelf): string => {
		if (shelf.pieces[0]?.item.installed) return 'built in';
		const toGet = shelf.pieces.length - shelf.owned;
		return [shelf.owned > 0 ? `${shelf.free} of ${shelf.owned} free` : '', toGet > 0 ? `${toGet} to get` : '']
			.filter(Boolean)
			.join(', ');
	};
</script>

{#each GROUPS as [kind, name] (kind)}
	{@const mine = shelves.filter((one) => one.kind === kind)}
	{#if mine.length > 0}
		<section aria-label={name}>
			<h3 class="heading">{name}</h3>
			<ul>
				{#each mine as shelf (shelf.key)}
					<li>
						<details>
							<summary>
								<span class="name">{shelf.name}</span>
								<span class="figure length"
									>{shelf.lengthM ? length(shelf.lengthM, rig.length_unit ?? 'm') : ''}</span
								>
								<span class="count" class:none={shelf.owned > 0 && shelf.free === 0}>{count(shelf)}</span>
							</summary>
							<ul class="pieces">
								{#each shelf.pieces as { item, run } (item.id)}
									<li>
										<span class="figure tag">{item.tag}</span>
										<span class="quiet">{run ? `in ${run}` : item.owned ? 'free' : 'to borrow or buy'}</span>
										{#if !item.installed}
											<label class="own no-print">
												<input
													type="checkbox"
													checked={item.owned ?? true}
													onchange={(event) =>
														void desk.sync.edit(ownedEdit(item, event.currentTarget.checked))}
												/>
												ours
											</label>
											<button
												type="button"
												class="out no-print"
												disabled={run !== null}
												title={run ? `Take it out of ${run} first` : `Take ${item.tag} out of the kit`}
												aria-label="Take {item.tag} out of the kit"
												onclick={() => void desk.sync.edit(removeEdit(item))}>take out</button
											>
										{/if}
									</li>
								{/each}
							</ul>
						</details>
					</li>
				{/each}
			</ul>
		</section>
	{/if}
{/each}
{#if shelves.length === 0}
	<p class="quiet">Nothing in the cupboard yet. Write the first line above.</p>
{/if}

<style>
	section {
		display: grid;
		gap: 0.3rem;
	}
	li {
		border-bottom: 1px solid var(--line);
	}
	summary {
		display: grid;
		grid-template-columns: minmax(0, 24rem) 5rem 9rem 1fr;
		gap: 1rem;
		align-items: baseline;
		padding: 0.45rem 0.25rem;
		min-height: 2.1rem;
		cursor: pointer;
	}
	.name {
		font-weight: 600;
	}
	.name::before {
		content: '▸';
		display: inline-block;
		width: 1.1rem;
		color: var(--dim);
	}
	details[open] .name::before {
		content: '▾';
	}
	.length {
		text-align: right;
	}
	.count {
		text-align: right;
		font-size: 0.875rem;
	}
	.none {
		color: var(--dim);
	}
	.pieces {
		padding: 0 0.25rem 0.6rem 1rem;
	}
	.pieces li {
		display: grid;
		grid-template-columns: 6rem minmax(0, 18rem) auto auto 1fr;
		gap: 1rem;
		align-items: center;
		font-size: 0.875rem;
		border: 0;
		min-height: 2rem;
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
		}
		.count {
			grid-column: 1 / -1;
			text-align: left;
		}
		.pieces li {
			grid-template-columns: 4rem minmax(0, 1fr) auto auto;
			gap: 0.6rem;
		}
	}
</style>
