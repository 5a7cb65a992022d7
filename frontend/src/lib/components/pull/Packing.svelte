<!-- What is packed, by store; ticked off on this device while somebody walks along the shelves. -->
<script lang="ts">
	import { byStore, type PackLine } from '../../domain/pull';

	let { packing, storageKey }: { packing: readonly PackLine[]; storageKey: string } = $props();
	const stores = $derived(byStore(packing));
	// svelte-ignore state_referenced_locally
	let ticked = $state<string[]>(kept(storageKey));

	function kept(key: string): string[] {
		try {
			const value: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
			return Array.isArray(value) ? value.filter((each) => typeof each === 'string') : [];
		} catch {
			return [];
		}
	}

	const nameOf = (line: PackLine): string => `${line.store} ${line.kind} ${line.words}`;

	function tick(line: PackLine): void {
		const name = nameOf(line);
		ticked = ticked.includes(name) ? ticked.filter((each) => each !== name) : [...ticked, name];
		try {
			localStorage.setItem(storageKey, JSON.stringify(ticked));
		} catch {
			// Private windows refuse storage; the ticks then last for this visit.
		}
	}
</script>

<div class="stores">
	{#each stores as { store, lines } (store)}
		<section aria-label={store}>
			<h3>{store[0]?.toUpperCase()}{store.slice(1)}</h3>
			<ul>
				{#each lines as line, at (at)}
					<li class:done={ticked.includes(nameOf(line))}>
						<label>
							<input type="checkbox" checked={ticked.includes(nameOf(line))} onchange={() => tick(line)} />
							<span class="figure count">{line.count} ×</span>
							<span
								>{line.words}{#if line.tags.length > 0}<span class="tags figure">{line.tags.join(', ')}</span
									>{/if}</span
							>
						</label>
					</li>
				{/each}
			</ul>
		</section>
	{/each}
</div>

<style>
	.stores {
		columns: 24rem;
		column-gap: 2.5rem;
	}
	section {
		break-inside: avoid;
		padding-bottom: 1rem;
	}
	li {
		border-bottom: 1px solid var(--line);
	}
	label {
		display: grid;
		grid-template-columns: auto 2.6rem minmax(0, 1fr);
		gap: 0.5rem;
		align-items: baseline;
		min-height: 2rem;
		padding: 0.2rem 0;
		cursor: pointer;
	}
	.count {
		text-align: right;
		color: var(--dim);
	}
	.tags {
		display: block;
		color: var(--dim);
		font-size: 0.875rem;
	}
	.done {
		color: var(--dim);
		text-decoration: line-through;
	}
</style>
