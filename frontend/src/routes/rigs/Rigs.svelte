<!-- All rigs: open one, take one away as a file, bring one in. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { push } from 'svelte-spa-router';
	import { Trouble, type Schemas } from '../../lib/api/client';
	import { importRig, rigQuery, rigsQuery } from '../../lib/api/queries';
	import HouseRules from '../../lib/components/house/HouseRules.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const queries = useQueryClient();
	const rigs = createQuery(() => rigsQuery());
	const open = createQuery(() => ({ ...rigQuery(desk.rigId ?? ''), enabled: desk.rigId !== null }));
	let refusal = $state<Schemas['Problem'] | null>(null);
	let reading = $state(false);

	async function bring(input: HTMLInputElement): Promise<void> {
		const file = input.files?.[0];
		if (!file) return;
		reading = true;
		refusal = null;
		try {
			const saved = await importRig(await file.text());
			queries.setQueryData(rigQuery(saved.rig.id).queryKey, saved);
			await queries.invalidateQueries({ queryKey: rigsQuery().queryKey });
			desk.open(saved.rig.id);
			await push('/');
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			refusal = reason.problem;
		} finally {
			reading = false;
			input.value = '';
		}
	}

	async function openRig(id: string): Promise<void> {
		desk.open(id);
		await push('/');
	}
</script>

<svelte:head><title>Rigs · Ruvak</title></svelte:head>

<section class="rigs">
	<header>
		<h2>Rigs</h2>
		<label class="btn preset-tonal">
			{reading ? 'Reading…' : 'Bring in a rig file'}
			<input
				type="file"
				accept=".json,application/json"
				class="sr-only"
				onchange={(event) => void bring(event.currentTarget)}
			/>
		</label>
	</header>
	{#if refusal}
		<div class="refusal" role="alert">
			<p><b>The file was not brought in.</b> Nothing was changed.</p>
			{#if refusal.faults.length > 0}
				<ul>
					{#each refusal.faults as fault, index (index)}<li>
							<span class="figure">{fault.where}</span>
							{fault.sentence}
						</li>{/each}
				</ul>
			{:else}
				<p>{refusal.message}</p>
			{/if}
		</div>
	{/if}
	{#if rigs.isError}
		<p>The rigs could not be fetched. {rigs.error.message}</p>
	{:else if !rigs.data}
		<p class="quiet">Fetching the rigs…</p>
	{:else}
		<ul class="list">
			{#each rigs.data as rig (rig.id)}
				<li class:open={rig.id === desk.rigId}>
					<button type="button" class="name" onclick={() => void openRig(rig.id)}>{rig.name}</button>
					<span class="quiet">{rig.venue}{rig.occasion ? `, ${rig.occasion}` : ''}</span>
					<span class="quiet">{rig.id === desk.rigId ? 'open' : ''}</span>
					<a href="/api/rigs/{rig.id}/file" download>Take away as a file</a>
					<a href="/api/rigs/{rig.id}/netlists" download>SPICE netlists</a>
				</li>
			{:else}
				<li class="quiet">No rigs yet. Bring in a rig file to begin.</li>
			{/each}
		</ul>
		{#if open.data}<HouseRules rig={open.data.rig} />{/if}
	{/if}
</section>

<style>
	.rigs {
		padding: 1.25rem 1.5rem;
		display: grid;
		gap: 1rem;
		max-width: 62rem;
	}
	header {
		display: flex;
		justify-content: space-between;
		align-items: center;
	}
	h2 {
		font-size: 1.4rem;
	}
	label:focus-within {
		outline: 2px solid var(--accent);
		outline-offset: 2px;
	}
	.refusal {
		padding: 0.8rem 1rem;
		background: var(--stop-wash);
		border-left: 3px solid var(--stop);
		display: grid;
		gap: 0.4rem;
	}
	.list li {
		display: grid;
		grid-template-columns: minmax(8rem, auto) 1fr auto auto auto;
		gap: 1.2rem;
		align-items: baseline;
		padding: 0.6rem 0.25rem;
		border-bottom: 1px solid var(--line);
	}
	.name {
		font-weight: 600;
		text-align: left;
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	@media (max-width: 720px) {
		.rigs {
			padding: 1rem;
		}
		.list li {
			display: flex;
			flex-wrap: wrap;
			gap: 0.4rem 1.2rem;
		}
		.list li > :nth-child(-n + 2) {
			flex: 1 0 100%;
		}
		.list li > :empty {
			display: none;
		}
	}
</style>
