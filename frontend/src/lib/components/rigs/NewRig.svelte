<!-- What must be known before there is a rig: what it is called and where it is. -->
<script lang="ts">
	import { newRigFile, type Beginning } from '../../domain/rigs';

	let {
		venue,
		onmake,
		oncancel
	}: { venue: string; onmake: (file: string) => Promise<void>; oncancel: () => void } = $props();

	// svelte-ignore state_referenced_locally
	let said = $state<Beginning>({ name: '', occasion: '', venue, mains_hz: 50, length_unit: 'm' });
	let making = $state(false);

	async function make(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		making = true;
		await onmake(newRigFile(said));
		making = false;
	}
</script>

<form class="new" aria-label="A new rig" onsubmit={(event) => void make(event)}>
	<div class="fields">
		<label class="field">
			<span>Called</span>
			<!-- svelte-ignore a11y_autofocus -->
			<input required maxlength="120" pattern=".*\S.*" title="a name" autofocus bind:value={said.name} />
		</label>
		<label class="field">
			<span>Venue</span>
			<input required maxlength="120" pattern=".*\S.*" title="a venue's name" bind:value={said.venue} />
		</label>
		<label class="field">
			<span>Occasion (may stay empty)</span>
			<input maxlength="600" bind:value={said.occasion} />
		</label>
		<label class="field">
			<span>Mains</span>
			<select bind:value={said.mains_hz}>
				<option value={50}>50 Hz</option>
				<option value={60}>60 Hz</option>
			</select>
		</label>
		<label class="field">
			<span>Lengths in</span>
			<select bind:value={said.length_unit}>
				<option value="m">metres</option>
				<option value="ft">feet</option>
			</select>
		</label>
	</div>
	<div class="doing">
		<button type="submit" class="btn go" disabled={making}>{making ? 'Making…' : 'Make it'}</button>
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
