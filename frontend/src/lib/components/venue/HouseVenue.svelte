<!-- Which revision of the house's venue this rig was judged on; what is newer, what it changes, and what is this rig's own. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import type { RigView } from '../../api/rig-view';
	import { importVenue } from '../../api/house';
	import { belongTo, newerQuery, saveVenue, standingQuery } from '../../api/venues';
	import { day } from '../../domain/format';
	import { Asking } from '../../state/asking.svelte';
	import { getDesk } from '../../state/desk.svelte';
	import FileButton from '../controls/FileButton.svelte';
	import SaveForHouse from './SaveForHouse.svelte';
	import VerdictChanges from './VerdictChanges.svelte';

	let { state: view }: { state: RigView } = $props();
	const desk = getDesk();
	const queries = useQueryClient();
	const asking = new Asking();

	const rigId = $derived(view.rig.id);
	const standing = createQuery(() => standingQuery(rigId, view.version));
	const at = $derived(standing.data);
	const newest = $derived(at?.newer[0]);
	const differs = $derived((at?.own.length ?? 0) > 0);
	const newer = createQuery(() => ({
		...newerQuery(rigId, view.version, newest?.number ?? 0),
		enabled: newest !== undefined || (at?.venue !== null && differs)
	}));

	const renew = () => queries.invalidateQueries({ queryKey: ['venue'] });

	async function save(words: string): Promise<boolean> {
		const saved = await asking.ask(() => saveVenue(rigId, words));
		await renew();
		await desk.sync.watch();
		return saved !== null;
	}

	async function belong(id: string): Promise<void> {
		await asking.ask(() => belongTo(rigId, id));
		await renew();
	}

	async function bring(file: File): Promise<void> {
		const text = await file.text();
		await asking.ask(() => importVenue(text));
		await renew();
	}

	async function take(): Promise<void> {
		if (newer.data?.edit) await desk.sync.edit(newer.data.edit);
		await renew();
	}
</script>

{#if at}
	<section aria-label="Venue of the house" class:newer={newest !== undefined}>
		{#if at.venue === null}
			<p>
				This venue is known to this rig alone. Saved for the house, every rig can belong to it and is told
				when something changes.
			</p>
			{#if desk.may('plan')}
				<div class="in-a-row">
					{#each at.others as other (other.id)}
						<button type="button" class="btn preset-tonal" onclick={() => void belong(other.id)}
							>Belong to {other.name}</button
						>
					{/each}
					<FileButton
						words="Import a venue file"
						accept=".json,application/json"
						busy={asking.busy}
						onfile={bring}
					/>
				</div>
			{/if}
		{:else if newest}
			<p>
				<b>{at.venue.name} has changed since this rig was judged</b> (on revision {at.at_revision}).
			</p>
			<ul>
				{#each at.newer as line (line.number)}
					<li>
						Revision {line.number}: {line.words}
						<span class="quiet">{line.made_by}, {day(line.made_at)}</span>
					</li>
				{/each}
			</ul>
			{#if newer.data}
				<p class="said">{newer.data.said.join('; ') || 'Nothing that this rig does not have already.'}</p>
				{#each newer.data.kept as sentence (sentence)}<p class="kept">{sentence}</p>{/each}
				<VerdictChanges changes={newer.data.runs} rigId={view.rig.id} />
				{#if desk.may('plan')}
					<button type="button" class="btn go" disabled={!newer.data.edit} onclick={() => void take()}
						>Take revision {newer.data.revision} into this rig</button
					>
				{/if}
			{:else}
				<p class="quiet" role="status">Computing what that changes for this rig…</p>
			{/if}
		{:else}
			<p>
				Judged on revision {at.at_revision} of {at.venue.name}, the newest
				<span class="quiet">({at.venue.made_by}, {day(at.venue.made_at)})</span>.
				{#if at.own.length > 0}<b>This rig has it otherwise:</b> {at.own.join('; ')}.{/if}
				<a href="/api/venues/{at.venue.id}/file" download>Export the venue</a>
			</p>
			{#if differs && desk.may('plan') && newer.data?.edit}
				<details>
					<summary>Take it as the house has it</summary>
					{#each newer.data.kept as sentence (sentence)}<p class="kept">{sentence}</p>{/each}
					<VerdictChanges changes={newer.data.runs} rigId={view.rig.id} />
					<button type="button" class="btn preset-tonal" onclick={() => void take()}
						>Take revision {newer.data.revision} into this rig</button
					>
				</details>
			{/if}
		{/if}
		{#if desk.may('plan') && (at.venue === null || (newest === undefined && differs))}
			<SaveForHouse
				revision={at.venue === null ? null : at.at_revision + 1}
				busy={asking.busy}
				onsave={save}
			/>
		{/if}
		{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
	</section>
{/if}

<style>
	section {
		display: grid;
		gap: 0.6rem;
		justify-items: start;
		padding: 0.8rem 1rem;
		background: var(--panel);
		border-left: 4px solid var(--line-strong);
		font-size: 0.9rem;
	}
	.newer {
		border-left-color: var(--watch);
		background: var(--watch-wash);
	}
	a {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	details {
		width: 100%;
	}
	details[open] {
		display: grid;
		gap: 0.5rem;
		justify-items: start;
	}
	summary {
		cursor: pointer;
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	.kept {
		color: var(--dim);
	}
</style>
