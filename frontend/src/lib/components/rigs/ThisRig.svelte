<!-- What the open rig and its venue are called, and what it is measured in. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { ALIGNMENTS, alignmentKey, rigEdit } from '../../domain/rigs';
	import { getDesk } from '../../state/desk.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();

	const alignment = $derived(alignmentKey(rig.alignment));
	const say = (...said: Parameters<typeof rigEdit>): void => void desk.edit(rigEdit(...said));

	/** A name cannot be empty: the field goes back to what it was. */
	function sayName(field: 'name' | 'venue_name', input: HTMLInputElement, before: string): void {
		const name = input.value.trim();
		if (name && name !== before) say(field, name);
		else input.value = before;
	}
</script>

<section class="this" aria-labelledby="this-heading">
	<h3 id="this-heading" class="heading">The open rig</h3>
	<div class="fields">
		<label class="field">
			<span>Called</span>
			<input
				maxlength="120"
				value={rig.name}
				onchange={(event) => sayName('name', event.currentTarget, rig.name)}
			/>
		</label>
		<label class="field">
			<span>Occasion</span>
			<input
				maxlength="600"
				value={rig.occasion}
				onchange={(event) => say('occasion', event.currentTarget.value.trim())}
			/>
		</label>
		<label class="field">
			<span>Venue</span>
			<input
				maxlength="120"
				value={rig.venue.name}
				onchange={(event) => sayName('venue_name', event.currentTarget, rig.venue.name)}
			/>
		</label>
		<label class="field">
			<span>Lengths in</span>
			<select
				value={rig.length_unit ?? 'm'}
				onchange={(event) => say('length_unit', event.currentTarget.value)}
			>
				<option value="m">metres</option>
				<option value="ft">feet</option>
			</select>
		</label>
		<label class="field">
			<span>Mains</span>
			<select
				value={rig.venue.mains_hz ?? 50}
				onchange={(event) => say('mains_hz', Number(event.currentTarget.value))}
			>
				<option value={50}>50 Hz</option>
				<option value={60}>60 Hz</option>
			</select>
		</label>
		<label class="field wide">
			<span>Digital gear is aligned so that</span>
			<select value={alignment ?? ''} onchange={(event) => say('alignment', event.currentTarget.value)}>
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
