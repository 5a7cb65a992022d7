<!-- Parts of one's own, in the format of the library: made from one of its parts, or brought in by file. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import type { Schemas } from '../../api/client';
	import { partsQuery, readPart } from '../../api/queries';
	import { freeId } from '../../domain/own-part';
	import { put } from '../../domain/ops';
	import { getDesk } from '../../state/desk.svelte';
	import PartEditor from './PartEditor.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();
	const library = createQuery(() => partsQuery());

	let part = $state.raw<Schemas['Part'] | null>(null);
	let refusal = $state('');
	const known = $derived(new Set((library.data ?? []).map((one) => one.id)));
	const own = $derived((rig.parts ?? []).filter((one) => library.data && !known.has(one.id)));
	const used = $derived(new Set([...(rig.kit ?? []), ...(rig.gear ?? [])].map((one) => one.part)));

	async function start(id: string): Promise<void> {
		if (!id) return;
		const from = (rig.parts ?? []).find((one) => one.id === id) ?? (await readPart(id));
		const taken = new Set([...known, ...(rig.parts ?? []).map((one) => one.id)]);
		const name = `${from.name}, own`;
		part = { ...from, id: freeId(from.name, taken), name, called: [], revision: 1 };
	}

	async function bring(input: HTMLInputElement): Promise<void> {
		const file = input.files?.[0];
		if (!file) return;
		refusal = '';
		try {
			part = JSON.parse(await file.text()) as Schemas['Part'];
		} catch {
			refusal = `“${file.name}” is not JSON. A part file is what “Export” gives here.`;
		}
		input.value = '';
	}

	const address = (one: Schemas['Part']): string =>
		`data:application/json,${encodeURIComponent(JSON.stringify(one, null, 2))}`;
</script>

<section class="own" aria-label="Parts of your own">
	<h3 class="heading">Parts of your own</h3>
	{#if own.length > 0}
		<ul>
			{#each own as one (one.id)}
				<li>
					<b>{one.name}</b>
					<span class="quiet">{used.has(one.id) ? 'in use here' : 'not used yet'}</span>
					<button type="button" class="link no-print" onclick={() => (part = one)}>Change</button>
					<a href={address(one)} download="{one.id}.json">Export</a>
				</li>
			{/each}
		</ul>
	{:else}
		<p class="quiet">
			None yet. A lead you measured, a box you built, a desk with other figures: begin with the part nearest
			to it.
		</p>
	{/if}
	<div class="begin no-print">
		<label>
			<span>Begin with</span>
			<select
				onchange={(event) => {
					void start(event.currentTarget.value);
					event.currentTarget.value = '';
				}}
			>
				<option value="">a part of the library…</option>
				{#each ['lead', 'adapter', 'box', 'gear'] as kind (kind)}
					<optgroup label={{ lead: 'Leads', adapter: 'Adapters', box: 'Boxes', gear: 'Gear' }[kind]}>
						{#each (library.data ?? []).filter((one) => one.kind === kind) as one (one.id)}
							<option value={one.id}>{one.name}</option>
						{/each}
					</optgroup>
				{/each}
			</select>
		</label>
		<label class="btn preset-tonal">
			Import a part file
			<input
				type="file"
				accept=".json,application/json"
				class="sr-only"
				onchange={(event) => void bring(event.currentTarget)}
			/>
		</label>
	</div>
	{#if refusal}<p class="problem" role="alert">{refusal}</p>{/if}
	{#if part}
		{#key part.id}
			<PartEditor
				{part}
				onsave={async (changed) => {
					await desk.sync.edit({
						label: `Part: ${changed.name}`.slice(0, 120),
						ops: [put('parts', changed)]
					});
					if (!desk.sync.trouble) part = null;
				}}
				oncancel={() => (part = null)}
			/>
		{/key}
	{/if}
</section>

<style>
	.own {
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		gap: 0.7rem;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto auto auto;
		gap: 1.2rem;
		align-items: baseline;
		padding: 0.45rem 0.25rem;
		border-bottom: 1px solid var(--line);
	}
	.link {
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 1.75rem;
	}
	.begin {
		display: flex;
		gap: 1rem;
		align-items: end;
		flex-wrap: wrap;
	}
	.begin label:first-child {
		min-width: 0;
		display: grid;
		gap: 0.3rem;
		font-size: 0.8125rem;
		font-weight: 600;
	}
	select {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.4rem 0.6rem;
		min-height: 2.25rem;
		width: min(24rem, 100%);
	}
	.problem {
		border-left: 3px solid var(--fix);
		padding-left: 0.6rem;
	}
	label:focus-within {
		outline: 2px solid var(--accent);
		outline-offset: 2px;
	}
</style>
