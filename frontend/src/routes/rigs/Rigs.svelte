<!-- All rigs: begin one, open one, copy it for another occasion, take it away as a file, bring one in. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { push } from 'svelte-spa-router';
	import { Trouble, type Schemas } from '../../lib/api/client';
	import { copyRig, deleteRig, importRig, rigQuery, rigsQuery } from '../../lib/api/queries';
	import { occasionsQuery, shelveRig } from '../../lib/api/house';
	import { moveInto, venuesQuery } from '../../lib/api/venues';
	import FileButton from '../../lib/components/controls/FileButton.svelte';
	import Only from '../../lib/components/frame/Only.svelte';
	import RigLinks from '../../lib/components/people/RigLinks.svelte';
	import NewRig from '../../lib/components/rigs/NewRig.svelte';
	import RigLine from '../../lib/components/rigs/RigLine.svelte';
	import ThisRig from '../../lib/components/rigs/ThisRig.svelte';
	import { addressOf } from '../../lib/domain/address';
	import { dayOf, hoursOf } from '../../lib/domain/occasions';
	import { copyName } from '../../lib/domain/rigs';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const queries = useQueryClient();
	const rigs = createQuery(() => rigsQuery());
	const open = createQuery(() => ({
		...rigQuery(desk.selection.rigId ?? ''),
		enabled: desk.selection.rigId !== null
	}));
	const venues = createQuery(() => venuesQuery());
	const names = $derived((rigs.data ?? []).map((one) => one.name));
	// A rig that is called something else now is called so in the list.
	$effect(() => {
		if (open.data?.version) void queries.invalidateQueries({ queryKey: rigsQuery().queryKey });
	});
	let refusal = $state<{ heading: string; problem: Schemas['Problem'] } | null>(null);
	type Shelf = Schemas['RigSummary']['shelf'];
	const SHELVES: Record<Shelf, string> = { plans: 'Plans', templates: 'Templates', archive: 'Archive' };
	const EMPTY: Record<Shelf, string> = {
		plans: 'No rigs yet. Create one, or import a rig file.',
		templates: 'No templates yet. “Make a template” puts a plan here, to begin new ones from.',
		archive: 'Nothing in the archive.'
	};
	let shelf = $state<Shelf>('plans');
	const onShelf = $derived((rigs.data ?? []).filter((rig) => rig.shelf === shelf));
	const occasions = createQuery(() => ({ ...occasionsQuery(), enabled: !desk.byLink }));

	function dateOf({ date }: Schemas['RigSummary']): string {
		const occasion = occasions.data?.find(({ id }) => id === date);
		return occasion ? `${dayOf(occasion.starts_at)}, ${hoursOf(occasion)}` : '';
	}

	async function shelve(id: string, next: Shelf): Promise<void> {
		refusal = null;
		try {
			await shelveRig(id, next);
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			refusal = { heading: 'The rig stays where it is.', problem: reason.problem };
		}
		await queries.invalidateQueries({ queryKey: rigsQuery().queryKey });
	}
	let beginning = $state(false);
	let reading = $state(false);

	/** What the server makes opens; what it refuses is told here. */
	async function bring(heading: string, made: Promise<Schemas['RigState']>): Promise<void> {
		refusal = null;
		try {
			const saved = await made;
			await queries.invalidateQueries({ queryKey: rigsQuery().queryKey });
			await openRig(saved.rig.id);
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			refusal = { heading, problem: reason.problem };
		}
	}

	/** A rig in a venue of the house has its earth, its rules and what is built in from the beginning. */
	async function makeIn(file: string, name: string): Promise<Schemas['RigState']> {
		const made = await importRig(file);
		const venue = (venues.data ?? []).find((one) => one.name.toLowerCase() === name.trim().toLowerCase());
		if (venue) await moveInto(made.rig.id, made.version, venue.id);
		return made;
	}

	async function bringFile(file: File): Promise<void> {
		reading = true;
		await bring('The file was not brought in.', importRig(await file.text()));
		reading = false;
	}

	async function remove(id: string): Promise<void> {
		refusal = null;
		try {
			await deleteRig(id);
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			refusal = { heading: 'The rig was not deleted.', problem: reason.problem };
			return;
		}
		await queries.invalidateQueries({ queryKey: rigsQuery().queryKey });
		if (desk.selection.rigId === id) desk.selection.forget();
		queries.removeQueries({ queryKey: rigQuery(id).queryKey });
	}

	async function openRig(id: string): Promise<void> {
		desk.selection.open(id);
		await push(addressOf({ station: 'runs', rig: id, run: null }));
	}
</script>

<svelte:head><title>Rigs · Ruvak</title></svelte:head>

<section class="rigs">
	<header>
		<h2>Rigs</h2>
		{#if desk.may('plan')}
			<button type="button" class="btn go" disabled={beginning} onclick={() => (beginning = true)}
				>New rig</button
			>
			<FileButton
				words={reading ? 'Reading…' : 'Import a rig file'}
				accept=".json,application/json"
				busy={reading}
				onfile={bringFile}
			/>
		{/if}
	</header>
	{#if beginning}
		<NewRig
			venue={open.data?.rig.venue.name ?? ''}
			venues={(venues.data ?? []).map(({ name }) => name)}
			onmake={(file, venue) => bring('The rig was not made.', makeIn(file, venue))}
			oncancel={() => (beginning = false)}
		/>
	{/if}
	{#if refusal}
		<div class="refusal" role="alert">
			<p><b>{refusal.heading}</b> Nothing was changed.</p>
			{#if refusal.problem.faults.length > 0}
				<ul>
					{#each refusal.problem.faults as fault, index (index)}<li>
							<span class="figure">{fault.where}</span>
							{fault.sentence}
						</li>{/each}
				</ul>
			{:else}
				<p>{refusal.problem.message}</p>
			{/if}
		</div>
	{/if}
	{#if rigs.isError}
		<p>The rigs could not be fetched. {rigs.error.message}</p>
	{:else if !rigs.data}
		<p class="quiet">Fetching the rigs…</p>
	{:else}
		<div class="segments" role="group" aria-label="Show">
			{#each Object.entries(SHELVES) as [value, words] (value)}
				{@const count = rigs.data.filter((rig) => rig.shelf === value).length}
				<button type="button" aria-pressed={shelf === value} onclick={() => (shelf = value as Shelf)}
					>{words} <span class="figure">{count}</span></button
				>
			{/each}
		</div>
		<ul>
			{#each onShelf as rig (rig.id)}
				<RigLine
					{rig}
					date={dateOf(rig)}
					openId={desk.selection.rigId}
					onshelve={(next) => shelve(rig.id, next)}
					isOpen={rig.id === desk.selection.rigId}
					suggested={copyName(rig.name, names)}
					onopen={() => void openRig(rig.id)}
					oncopy={(name, occasion) => bring('The rig was not copied.', copyRig(rig.id, name, occasion))}
					ondelete={() => remove(rig.id)}
				/>
			{:else}
				<li class="quiet">{EMPTY[shelf]}</li>
			{/each}
		</ul>
		{#if open.data}
			<Only may="plan">
				<ThisRig rig={open.data.rig} />
			</Only>
			{#if desk.may('plan')}
				<RigLinks rigId={open.data.rig.id} rigName={open.data.rig.name} />
			{/if}
		{/if}
	{/if}
</section>

<style>
	.rigs {
		padding: 1.25rem 1.5rem;
		display: grid;
		gap: 1rem;
		max-width: 68rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		align-items: center;
	}
	h2 {
		font-size: 1.4rem;
		margin-right: auto;
	}
	.refusal {
		padding: 0.8rem 1rem;
		background: var(--stop-wash);
		border-left: 3px solid var(--stop);
		display: grid;
		gap: 0.4rem;
	}
	@media (max-width: 720px) {
		.rigs {
			padding: 1rem;
		}
	}
</style>
