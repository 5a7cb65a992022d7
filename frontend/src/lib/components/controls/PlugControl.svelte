<!-- Which strip a device's mains plug is in: the plain question that decides most of the hum. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { ANOTHER, EARTH_OPEN, NOBODY_SAID, stripOf, stripsOf } from '../../domain/outlets';
	import { getDesk } from '../../state/desk.svelte';
	import { showSaved } from './saved-value';

	interface Props {
		rig: Schemas['Rig'];
		gear: Schemas['Gear'];
		onset: (choice: string) => void;
	}
	let { rig, gear, onset }: Props = $props();
	const desk = getDesk();
	const strips = $derived(stripsOf(rig));
	const value = $derived(stripOf(rig, gear));
</script>

<label class="field">
	<span>Mains plug of {gear.name}</span>
	<select
		{value}
		{@attach showSaved(value, desk.sync.queued === 0)}
		onchange={(event) => onset(event.currentTarget.value)}
	>
		<option value={NOBODY_SAID}>not stated</option>
		{#each strips as strip (strip.id)}<option value={strip.id}>in {strip.name}</option>{/each}
		{#if value !== NOBODY_SAID && value !== EARTH_OPEN && !strips.some((strip) => strip.id === value)}
			<option {value}>at {(rig.venue.earth ?? []).find((point) => point.id === value)?.name ?? value}</option>
		{/if}
		<option value={ANOTHER}>in another strip</option>
		<option value={EARTH_OPEN}>its earth is broken or missing</option>
	</select>
</label>
