<!-- What a run is called, its number and its note; moving it, changing its device, copying it, deleting it. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { set } from '../../domain/ops';
	import { deviceOf } from '../../domain/device-of';
	import { deleteRuns } from '../../domain/together';
	import { getDesk } from '../../state/desk.svelte';
	import { showSaved } from '../controls/saved-value';

	let { rig, run }: { rig: Schemas['Rig']; run: Schemas['Run'] } = $props();
	const desk = getDesk();
	const settled = $derived(desk.sync.queued === 0);
	const MOST = 9999;

	const device = $derived(deviceOf(rig, run));

	function rename(field: HTMLInputElement): void {
		const name = field.value.trim();
		if (!name) field.value = run.name;
		else if (name !== run.name)
			void desk.sync.edit({
				label: `Rename ${run.name} to ${name}`,
				ops: [set('runs', run.id, 'name', name)]
			});
	}

	function renumber(field: HTMLInputElement): void {
		const number = Number(field.value);
		if (!Number.isInteger(number) || number < 1 || number > MOST) field.value = String(run.number);
		else if (number !== run.number)
			void desk.sync.edit({
				label: `${run.name} is number ${number}`,
				ops: [set('runs', run.id, 'number', number)]
			});
	}

	function annotate(field: HTMLInputElement): void {
		const note = field.value.trim();
		if (note !== run.note)
			void desk.sync.edit({ label: `Note on ${run.name}`, ops: [set('runs', run.id, 'note', note)] });
	}
</script>

<div class="fields facts no-print">
	<label class="field number"
		><span>Number</span><input
			inputmode="numeric"
			value={run.number}
			{@attach showSaved(String(run.number), settled)}
			onchange={(event) => renumber(event.currentTarget)}
		/></label
	>
	<label class="field"
		><span>Name</span><input
			value={run.name}
			maxlength="120"
			{@attach showSaved(run.name, settled)}
			onchange={(event) => rename(event.currentTarget)}
		/></label
	>
	<label class="field note"
		><span>Note</span><input
			value={run.note ?? ''}
			maxlength="600"
			{@attach showSaved(run.note ?? '', settled)}
			onchange={(event) => annotate(event.currentTarget)}
		/></label
	>
	<div class="acts">
		<button type="button" class="btn preset-tonal" onclick={() => (desk.suggested = `${run.name} moves to `)}
			>Move…</button
		>
		{#if device}
			<button
				type="button"
				class="btn preset-tonal"
				onclick={() => (desk.suggested = `${device.name} is now a `)}>Change device…</button
			>
		{/if}
		<button type="button" class="btn preset-tonal" onclick={() => (desk.suggested = `copy ${run.name}`)}
			>Copy…</button
		>
		<button type="button" class="btn preset-tonal" onclick={() => void desk.sync.edit(deleteRuns([run]))}
			>Delete run</button
		>
	</div>
</div>

<style>
	.facts {
		align-items: end;
	}
	.acts {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
	}
	.number input {
		width: 4.5rem;
	}
	.note {
		flex: 1;
		min-width: 9rem;
	}
	.note input {
		width: 100%;
	}
</style>
