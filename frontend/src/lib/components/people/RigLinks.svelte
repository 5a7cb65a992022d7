<!-- Links to the open rig: who holds one, what it gives, until when; a new one with its QR code. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import type { Schemas } from '../../api/client';
	import { linksQuery, makeLink, revokeLink } from '../../api/people';
	import { rigsQuery } from '../../api/queries';
	import { GIVES, HOURS, until } from '../../domain/people';
	import { Asking } from '../../state/asking.svelte';
	import Part from './Part.svelte';
	import ShownLink from './ShownLink.svelte';

	let { rigId, rigName }: { rigId: string; rigName: string } = $props();

	const queries = useQueryClient();
	const links = createQuery(() => linksQuery(rigId));
	const asking = new Asking();
	let name = $state('');
	let gives = $state<Schemas['Link']['gives']>('read');
	let hours = $state(12);
	const rigs = createQuery(() => rigsQuery());
	const dated = $derived(rigs.data?.find(({ id }) => id === rigId)?.date != null);
	let made = $state<Schemas['MadeLink'] | null>(null);

	const renew = () => queries.invalidateQueries({ queryKey: linksQuery(rigId).queryKey });

	async function make(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		made =
			(await asking.ask(() => makeLink(rigId, { name: name.trim(), gives, hours: hours || null })))?.result ??
			null;
		if (made) name = '';
		await renew();
	}

	async function revoke(id: string): Promise<void> {
		await asking.ask(() => revokeLink(rigId, id));
		await renew();
	}
</script>

<Part
	heading="Links to this rig"
	words="For somebody without an account: it opens {rigName} and nothing else, until its time or until you revoke it."
	refused={asking.refused}
>
	{#if made}
		<ShownLink link={made} words="A link to {rigName}" onclose={() => (made = null)} />
	{/if}
	<ul class="lines">
		{#each links.data ?? [] as link (link.id)}
			<li>
				<b>{link.name}</b>
				<span>may {GIVES[link.gives]}</span>
				<span class="quiet"
					>until {link.with_occasion ? 'its date is over, ' : ''}{until(link.ends_at)}; {link.browsers === 0
						? 'not opened yet'
						: `opened at ${link.browsers} ${link.browsers === 1 ? 'browser' : 'browsers'}`}; from {link.made_by}</span
				>
				<button type="button" class="in-text" onclick={() => void revoke(link.id)}
					>Revoke<span class="sr-only"> the link for {link.name}</span></button
				>
			</li>
		{/each}
	</ul>
	<form class="in-a-row" onsubmit={(event) => void make(event)} aria-label="Make a link">
		<label class="field">
			<span>For</span>
			<input
				required
				maxlength="120"
				pattern=".*\S.*"
				title="a name"
				placeholder="Stage tablet"
				bind:value={name}
			/>
		</label>
		<label class="field">
			<span>They may</span>
			<select bind:value={gives}>
				{#each Object.entries(GIVES) as [value, words] (value)}<option {value}>{words}</option>{/each}
			</select>
		</label>
		<label class="field">
			<span>For the next</span>
			<select bind:value={hours}>
				{#if dated}<option value={0}>hours until its date is over</option>{/if}
				{#each Object.entries(HOURS) as [value, words] (value)}<option value={Number(value)}>{words}</option
					>{/each}
			</select>
		</label>
		<button type="submit" class="btn preset-tonal" disabled={asking.busy}>Create link</button>
	</form>
</Part>

<style>
	select {
		width: min(17rem, 100%);
	}
</style>
