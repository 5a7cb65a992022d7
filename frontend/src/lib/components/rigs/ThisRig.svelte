<!-- What the open rig and its venue are called, and what it is measured in. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { ALIGNMENTS, alignmentKey, rigEdit } from '../../domain/rigs';
	import { getDesk } from '../../state/desk.svelte';
	import RigField from '../controls/RigField.svelte';
	import { showSaved } from '../controls/saved-value';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();

	const alignment = $derived(alignmentKey(rig.alignment));
	const say = (...said: Parameters<typeof rigEdit>): void => void desk.sync.edit(rigEdit(...said));
</script>

<section class="this" aria-labelledby="this-heading">
	<h3 id="this-heading" class="heading">The open rig</h3>
	<div class="fields">
		<RigField of="Rig.name" value={rig.name} onsay={(text) => say('name', text)} />
		<RigField of="Rig.occasion" value={rig.occasion} onsay={(text) => say('occasion', text)} />
		<RigField of="Venue.name" value={rig.venue.name} onsay={(text) => say('venue_name', text)} />
		<RigField of="Rig.length_unit" value={rig.length_unit} onsay={(unit) => say('length_unit', unit)} />
		<RigField of="Venue.mains_hz" value={rig.venue.mains_hz} onsay={(hz) => say('mains_hz', Number(hz))} />
		<label class="field wide">
			<span>Digital gear is aligned so that</span>
			<select
				value={alignment ?? ''}
				{@attach showSaved(alignment ?? '', desk.sync.queued === 0)}
				onchange={(event) => say('alignment', event.currentTarget.value)}
			>
				{#if alignment === null}<option value="" disabled>{rig.alignment?.source}</option>{/if}
				{#each Object.entries(ALIGNMENTS) as [value, words] (value)}<option {value}>{words}</option>{/each}
			</select>
		</label>
	</div>
</section>

<style>
	.this {
		display: grid;
		gap: 0.6rem;
		margin-top: 1.5rem;
	}
	.wide select {
		width: min(22rem, 100%);
	}
</style>
