<!-- What the house owns, by store: how it is, and who has it when. Every rig draws from it. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { adoptKit, cupboardQuery, importCupboard } from '../../lib/api/house';
	import { rigQuery } from '../../lib/api/queries';
	import FileButton from '../../lib/components/controls/FileButton.svelte';
	import CupboardFigures from '../../lib/components/cupboard/CupboardFigures.svelte';
	import CupboardLines from '../../lib/components/cupboard/CupboardLines.svelte';
	import CupboardHistory from '../../lib/components/cupboard/CupboardHistory.svelte';
	import EntryLine from '../../lib/components/cupboard/EntryLine.svelte';
	import { SHOWN, byStore, figuresOf, matching, type Show } from '../../lib/domain/cupboard';
	import { Asking } from '../../lib/state/asking.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const queries = useQueryClient();
	const asking = new Asking();
	const cupboard = createQuery(() => cupboardQuery());
	const rig = createQuery(() => ({
		...rigQuery(desk.selection.rigId ?? ''),
		enabled: desk.selection.rigId !== null
	}));

	let text = $state('');
	let show = $state<Show>('all');

	const entries = $derived(cupboard.data?.entries ?? []);
	const shelves = $derived(byStore(matching(entries, text, show)));
	const own = $derived.by(() => {
		const { kit = [], gear = [] } = rig.data?.rig ?? {};
		return [...kit.filter(({ owned, installed }) => owned && !installed), ...gear].filter(
			({ drawn }) => !drawn
		).length;
	});

	const renew = async (): Promise<void> => {
		await queries.invalidateQueries({ queryKey: cupboardQuery().queryKey });
		await desk.sync.watch();
	};

	async function bring(text: string): Promise<void> {
		await asking.ask(() => importCupboard(text));
		await renew();
	}

	async function adopt(): Promise<void> {
		await asking.ask(() => adoptKit(desk.selection.rigId ?? ''));
		await renew();
	}
</script>

<svelte:head><title>Cupboard · Ruvak</title></svelte:head>

<section class="view">
	<header>
		<div>
			<h2>Cupboard</h2>
			<p class="quiet">
				What the house owns. Every rig draws from it, and for the hours of its occasion nobody else gets the
				same.
			</p>
		</div>
		<span class="out no-print">
			<a class="btn preset-tonal" href="/api/cupboard/table" download>Export as CSV</a>
			<a class="btn preset-tonal" href="/api/cupboard/file" download>Export as file</a>
			{#if desk.may('plan')}
				<FileButton
					words="Import a file"
					accept=".json,application/json"
					busy={asking.busy}
					onfile={async (file) => bring(await file.text())}
				/>
			{/if}
		</span>
	</header>
	{#if cupboard.isError && !cupboard.data}
		<p>The cupboard could not be fetched. {cupboard.error.message}</p>
	{:else if !cupboard.data}
		<p class="quiet">Fetching the cupboard…</p>
	{:else}
		<CupboardFigures figures={figuresOf(entries)} />
		{#if own > 0 && rig.data && desk.may('plan')}
			<p class="adopt no-print">
				{rig.data.rig.name} has {own}
				{own === 1 ? 'thing' : 'things'} of its own that no other rig can use.
				<button type="button" class="btn preset-tonal" disabled={asking.busy} onclick={() => void adopt()}
					>Put them into the cupboard</button
				>
			</p>
		{/if}
		{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
		{#if desk.may('plan')}
			<details class="no-print" open={entries.length === 0}>
				<summary class="heading">Add to the cupboard</summary>
				<CupboardLines onchange={renew} />
			</details>
		{/if}
		{#if entries.length > 0}<div class="look no-print">
				<input
					type="search"
					placeholder="Find: tag, kind, store, rig"
					aria-label="Find in the cupboard"
					bind:value={text}
				/>
				<div class="segments" role="group" aria-label="Show">
					{#each Object.entries(SHOWN) as [value, words] (value)}
						<button type="button" aria-pressed={show === value} onclick={() => (show = value as Show)}
							>{words}</button
						>
					{/each}
				</div>
			</div>{/if}
		{#each shelves as shelf (shelf.store.toLowerCase())}
			<section aria-label={shelf.store}>
				<h3 class="heading">{shelf.store}</h3>
				<ul>
					{#each shelf.entries as entry (entry.id)}
						<EntryLine
							{entry}
							unit={rig.data?.rig.length_unit ?? 'm'}
							rigName={rig.data?.rig.name ?? null}
							onchange={renew}
						/>
					{/each}
				</ul>
			</section>
		{:else}
			<p class="quiet">
				{entries.length === 0
					? 'Nothing in the cupboard yet. Write the first line above.'
					: 'Nothing of that kind.'}
			</p>
		{/each}
		<CupboardHistory version={cupboard.data.version} />
	{/if}
</section>

<style>
	.out {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
	}
	.adopt {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem 1rem;
		padding-left: 0.8rem;
		border-left: 3px solid var(--accent);
	}
	.look {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem 1rem;
		align-items: center;
	}
	.look input {
		flex: 1 1 14rem;
		max-width: 24rem;
		min-height: 2.1rem;
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.35rem 0.6rem;
		font-size: 0.875rem;
	}
</style>
