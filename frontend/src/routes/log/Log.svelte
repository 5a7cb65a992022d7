<!-- What happened: checks, readings, notes and changes in time order, of this rig or of the whole house. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { Download } from '@lucide/svelte';
	import { addEntries, logQuery, type LogFilter } from '../../lib/api/log';
	import AddEntry from '../../lib/components/log/AddEntry.svelte';
	import LogLine from '../../lib/components/log/LogLine.svelte';
	import OverTheWeeks from '../../lib/components/log/OverTheWeeks.svelte';
	import { placeOf } from '../../lib/domain/address';
	import { day } from '../../lib/domain/format';
	import { byDay, KINDS, type LogKind } from '../../lib/domain/log';
	import { getDesk } from '../../lib/state/desk.svelte';
	import { router } from 'svelte-spa-router';
	import { rigQuery } from '../../lib/api/queries';

	const desk = getDesk();
	const queries = useQueryClient();
	const rigId = $derived(placeOf(router.location)?.rig ?? desk.selection.rigId);
	let whole = $state(false);
	let kind = $state<LogKind | 'all'>('all');
	let words = $state('');

	const filter = $derived<LogFilter>({
		...(whole || rigId === null ? {} : { rig: rigId }),
		...(kind === 'all' ? {} : { kind }),
		...(words.trim() ? { words: words.trim() } : {})
	});
	// Of this rig once it is known which that is; until then nothing is asked for.
	const log = createQuery(() => ({ ...logQuery(filter), enabled: whole || rigId !== null }));
	const rig = createQuery(() => ({ ...rigQuery(rigId ?? ''), enabled: rigId !== null }));
	const days = $derived(byDay(log.data ?? []));
	const file = $derived(`/api/log/file?${new URLSearchParams({ ...filter }).toString()}`);

	async function add(entry: Parameters<typeof addEntries>[1][number]): Promise<void> {
		if (rigId === null) return;
		await addEntries(rigId, [entry]);
		await queries.invalidateQueries({ queryKey: ['log'] });
	}
</script>

<section class="view">
	<header>
		<div>
			<h2>Log</h2>
			<p class="quiet">
				What happened, in order. It is added to and never edited; a correction is a line of its own.
			</p>
		</div>
		<a class="btn preset-tonal" href={file} download><Download size={16} aria-hidden="true" /> CSV</a>
	</header>
	{#if desk.may('record') && rigId !== null}
		<AddEntry runs={rig.data?.rig.runs ?? []} onadd={add} />
	{/if}
	<div class="filter">
		<div class="segments" role="group" aria-label="Of what">
			<button type="button" aria-pressed={!whole} onclick={() => (whole = false)}>This rig</button>
			{#if !desk.byLink}
				<button type="button" aria-pressed={whole} onclick={() => (whole = true)}>The whole house</button>
			{/if}
		</div>
		<label class="field">
			<span>Show</span>
			<select bind:value={kind}>
				<option value="all">everything</option>
				{#each KINDS as each (each.id)}<option value={each.id}>{each.words}</option>{/each}
			</select>
		</label>
		<label class="field">
			<span>With the words</span>
			<input type="search" bind:value={words} placeholder="crackle M31" />
		</label>
	</div>
	{#if !desk.byLink}<OverTheWeeks rig={whole ? null : rigId} />{/if}
	{#if log.isError}
		<p role="alert">{log.error.message}</p>
	{:else if !log.data}
		<p class="quiet" role="status">Reading the log…</p>
	{:else if log.data.length === 0}
		<p class="quiet">
			{words.trim() || kind !== 'all'
				? 'Nothing of that kind has these words.'
				: 'Nothing has happened yet. Answers of the line check, notes and measured levels come here.'}
		</p>
	{/if}
	{#each days as group (group.day)}
		<section aria-label={group.day}>
			<h3>{day(group.lines[0]?.at ?? '')}</h3>
			<ul>
				{#each group.lines as line (line.id)}<LogLine {line} {whole} />{/each}
			</ul>
		</section>
	{/each}
</section>

<style>
	.filter {
		display: flex;
		flex-wrap: wrap;
		align-items: end;
		gap: 0.6rem 1.2rem;
		margin-block: 0.9rem;
	}
	h3 {
		margin-block: 1rem 0.3rem;
		font-size: 1rem;
	}
	ul {
		list-style: none;
	}
</style>
