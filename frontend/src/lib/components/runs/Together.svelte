<!-- What can be changed on all marked runs at once. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { toMetres, typedNumber } from '../../domain/format';
	import { stripsOf } from '../../domain/outlets';
	import { deleteRuns, plugSources, renumber, runsOf, setLength, setPhantom } from '../../domain/together';
	import { getDesk } from '../../state/desk.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();

	/** In the order they are listed. */
	const marked = $derived(
		runsOf(
			rig,
			desk.selection.listed.filter((id) => desk.selection.marked.has(id))
		)
	);
	const unit = $derived(rig.length_unit ?? 'm');
	const phantom = $derived(setPhantom(rig, marked, true) !== null);
	const leads = $derived(setLength(rig, marked, 1) !== null);
	const plugs = $derived(stripsOf(rig).filter((strip) => plugSources(rig, marked, strip)));
	const MAX_M = 1000;

	function make(edit: Schemas['Edit'] | null): void {
		if (edit) void desk.sync.edit(edit);
	}

	/** A whole or decimal number above 0; the field is emptied once it is taken. */
	function take(field: HTMLInputElement, use: (value: number) => void): void {
		const value = typedNumber(field.value);
		if (!(value > 0)) return;
		field.value = '';
		use(value);
	}
</script>

<div class="together" role="group" aria-label="Change the marked runs">
	<b>{marked.length === 1 ? '1 run marked' : `${marked.length} runs marked`}</b>
	{#if leads}
		<label
			>Lead
			<input
				class="figure"
				inputmode="decimal"
				placeholder={unit}
				aria-label="Length of the longest lead of each ({unit})"
				onchange={(event) =>
					take(event.currentTarget, (value) =>
						make(setLength(rig, marked, Math.min(MAX_M, toMetres(value, unit))))
					)}
			/></label
		>
	{/if}
	{#if phantom}
		<span class="pair"
			>Phantom
			<button type="button" class="act" onclick={() => make(setPhantom(rig, marked, true))}>on</button>
			<button type="button" class="act" onclick={() => make(setPhantom(rig, marked, false))}>off</button
			></span
		>
	{/if}
	{#if plugs.length > 0}
		<label
			>Plugs
			<select
				aria-label="Mains plugs of their sources"
				onchange={(event) => {
					const strip = plugs.find((one) => one.id === event.currentTarget.value);
					event.currentTarget.value = '';
					if (strip) make(plugSources(rig, marked, strip));
				}}
			>
				<option value="">in…</option>
				{#each plugs as strip (strip.id)}<option value={strip.id}>in {strip.name}</option>{/each}
			</select></label
		>
	{/if}
	<label
		>Number from
		<input
			class="figure"
			inputmode="numeric"
			aria-label="Number them from"
			onchange={(event) =>
				take(event.currentTarget, (value) => make(renumber(marked, Math.min(9000, Math.round(value)))))}
		/></label
	>
	<button
		type="button"
		class="act"
		onclick={() => {
			make(deleteRuns(marked));
			desk.selection.marked.clear();
		}}>Delete</button
	>
	<button type="button" class="act" onclick={() => desk.selection.marked.clear()}>Unmark</button>
</div>

<style>
	.together {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem 1.1rem;
		font-size: 0.875rem;
		width: 100%;
	}
	input,
	select {
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.15rem 0.4rem;
		min-height: 1.75rem;
		margin-left: 0.3rem;
	}
	input {
		width: 4.5rem;
	}
	.act {
		border: 1px solid var(--line-strong);
		padding: 0.15rem 0.7rem;
		min-height: 1.75rem;
	}
	.act:hover {
		background: var(--raised);
	}
</style>
