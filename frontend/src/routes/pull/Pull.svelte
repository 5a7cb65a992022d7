<!-- The pull list: which lead of the cupboard goes into which run of the day, what is short, what is packed. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { Download } from '@lucide/svelte';
	import { router } from 'svelte-spa-router';
	import { cupboardQuery } from '../../lib/api/house';
	import { pullFile, pullQuery, takeLeads } from '../../lib/api/pull';
	import { rigQuery } from '../../lib/api/queries';
	import PrintSheets from '../../lib/components/print/PrintSheets.svelte';
	import Packing from '../../lib/components/pull/Packing.svelte';
	import PullRow from '../../lib/components/pull/PullRow.svelte';
	import { placeOf } from '../../lib/domain/address';
	import { length } from '../../lib/domain/format';
	import { byRig, countWords, proofWords, scaleM, shortageWords } from '../../lib/domain/pull';
	import { Asking } from '../../lib/state/asking.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const queries = useQueryClient();
	const asking = new Asking();
	const rigId = $derived(placeOf(router.location)?.rig ?? desk.selection.rigId ?? '');
	const rig = createQuery(() => ({ ...rigQuery(rigId), enabled: rigId !== '' }));
	const version = $derived(rig.data?.version ?? '');
	let spareM = $state(0);
	const pull = createQuery(() => ({
		...pullQuery(rigId, version, spareM),
		enabled: version !== '' && !desk.byLink
	}));
	const list = $derived(pull.data?.list);
	const unit = $derived(rig.data?.rig.length_unit ?? 'm');
	const metres = (value: number): string => length(value, unit);
	const scale = $derived(scaleM(list?.lines ?? []));
	const rigs = $derived(byRig(list?.lines ?? [], rigId));
	const changed = $derived(pull.data?.edits.length ?? 0);
	const news = $derived(list?.lines.filter((line) => line.changed).length ?? 0);
	const SPARES = [0, 1, 2, 5];

	async function take(): Promise<void> {
		await asking.ask(() => takeLeads(rigId, spareM));
		await desk.sync.watch();
		await queries.invalidateQueries({ queryKey: ['pull'] });
		await queries.invalidateQueries({ queryKey: cupboardQuery().queryKey });
	}
</script>

<svelte:head><title>Pull list · Ruvak</title></svelte:head>

<section class="view">
	<header>
		<div>
			<h2>Pull list</h2>
			<p class="quiet">
				{#if list}
					{countWords(list.lines)}{list.joins > 0
						? `, ${list.joins} ${list.joins === 1 ? 'join' : 'joins'} of two`
						: ''}; {metres(list.left_over_m)} more than the ways are long. {proofWords(list)}
				{:else}Which lead goes where, so that nobody has to think at the shelf.{/if}
			</p>
		</div>
		<span class="out no-print">
			<a class="btn preset-tonal" href={pullFile(rigId, spareM)} download
				><Download size={16} aria-hidden="true" /> CSV</a
			>
			<PrintSheets {rigId} first="pull" {spareM} />
		</span>
	</header>
	{#if desk.byLink}
		<p>This link opens one rig; a pull list is of all rigs of a day.</p>
	{:else if pull.isError && !list}
		<p>The pull list could not be made. {pull.error.message}</p>
	{:else if !list}
		<p class="quiet">Looking for the best leads…</p>
	{:else if list.lines.length === 0}
		<p>No run needs a lead yet. <a href="#/rigs/{rigId}/runs">Plan the runs</a> first.</p>
	{:else}
		<div class="act no-print">
			<label class="field"
				><span>Spare in each way</span>
				<select bind:value={spareM}>
					{#each SPARES as spare (spare)}<option value={spare}>{spare === 0 ? 'none' : metres(spare)}</option
						>{/each}
				</select></label
			>
			{#if changed > 0 && desk.may('plan')}
				<button type="button" class="btn go" disabled={asking.busy} onclick={() => void take()}
					>Take these leads{changed > 1 ? ` into ${changed} rigs` : ''}</button
				>
				<span class="quiet"
					>{news}
					{news === 1 ? 'lead changes' : 'leads change'}; the runs then go through them, and undo takes it
					back.</span
				>
			{:else if changed === 0}
				<span class="quiet">The runs go through these leads already.</span>
			{/if}
		</div>
		{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
		{#if list.shortages.length > 0}
			<section class="short" aria-label="To borrow or buy">
				<h3>To borrow or buy</h3>
				<ul>
					{#each list.shortages as short (`${short.part} ${short.length_m ?? ''}`)}
						<li>
							<b>{shortageWords(short, metres)}</b>
							<span class="quiet">for {short.runs.join(', ')}</span>
						</li>
					{/each}
				</ul>
			</section>
		{/if}
		{#each rigs as own (own.rig)}
			<section aria-label={own.name}>
				{#if rigs.length > 1}<h3>{own.name}</h3>{/if}
				<ol class="rows">
					{#each own.lines as line, at (at)}
						<PullRow {line} {scale} {unit} />
					{/each}
				</ol>
			</section>
		{/each}
		<section aria-label="Packing">
			<h3 class="packing">Packing</h3>
			<Packing packing={list.packing} storageKey="ruvak-packed-{rigId}" />
		</section>
	{/if}
</section>

<style>
	.out,
	.act {
		display: flex;
		flex-wrap: wrap;
		gap: 0.7rem;
		align-items: end;
	}
	.act .quiet {
		padding-bottom: 0.4rem;
	}
	.short {
		border-left: 4px solid var(--fix);
		padding-left: 0.9rem;
	}
	.short li {
		padding: 0.1rem 0;
	}
	.packing {
		padding: 0.6rem 0;
	}
</style>
