<!-- What must be known before there is a rig: what it is called and where it is. -->
<script lang="ts">
	import { formField } from '../../domain/form-fields';
	import { newRigFile, type Beginning } from '../../domain/rigs';
	import RigField from '../controls/RigField.svelte';

	let {
		venue,
		venues,
		onmake,
		oncancel
	}: {
		venue: string;
		/** Names of the house's venues. */
		venues: string[];
		onmake: (file: string, venue: string) => Promise<void>;
		oncancel: () => void;
	} = $props();
	const id = $props.id();

	// svelte-ignore state_referenced_locally
	let said = $state<Beginning>({ name: '', occasion: '', venue, mains_hz: 50, length_unit: 'm' });
	let making = $state(false);

	async function make(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		making = true;
		await onmake(newRigFile(said), said.venue);
		making = false;
	}
</script>

<form class="new" aria-label="A new rig" onsubmit={(event) => void make(event)}>
	<div class="fields">
		<label class="field">
			<span>{formField('Rig.name').label}</span>
			<!-- svelte-ignore a11y_autofocus -->
			<input required maxlength="120" pattern=".*\S.*" title="a name" autofocus bind:value={said.name} />
		</label>
		<label class="field">
			<span>{formField('Venue.name').label}</span>
			<input
				required
				maxlength="120"
				pattern=".*\S.*"
				title="a venue's name"
				list="{id}-venues"
				bind:value={said.venue}
			/>
			<datalist id="{id}-venues">
				{#each venues as venue (venue)}<option value={venue}></option>{/each}
			</datalist>
		</label>
		<RigField
			of="Rig.occasion"
			label="Occasion (may stay empty)"
			value={said.occasion}
			onsay={(text) => (said.occasion = text)}
		/>
		<RigField
			of="Venue.mains_hz"
			value={said.mains_hz}
			onsay={(hz) => (said.mains_hz = hz === '60' ? 60 : 50)}
		/>
		<RigField
			of="Rig.length_unit"
			value={said.length_unit}
			onsay={(unit) => (said.length_unit = unit === 'ft' ? 'ft' : 'm')}
		/>
	</div>
	<div class="doing">
		<button type="submit" class="btn go" disabled={making}>{making ? 'Creating…' : 'Create'}</button>
		<button type="button" class="btn" onclick={oncancel}>Cancel</button>
		<span class="quiet">Its runs and gear are typed at Runs, what you own at Kit.</span>
	</div>
</form>

<style>
	.new {
		display: grid;
		gap: 0.9rem;
		padding: 0.9rem 1rem 1rem;
		background: var(--panel);
	}
	.doing {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem 1rem;
	}
</style>
