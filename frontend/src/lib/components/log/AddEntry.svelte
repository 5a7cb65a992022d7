<!-- Adds a note or a measured level, about a run or about the whole rig. -->
<script lang="ts">
	import { Trouble, type Schemas } from '../../api/client';
	import { newEntry } from '../../domain/check';

	let {
		runs,
		onadd
	}: {
		runs: Schemas['Run'][];
		onadd: (entry: Schemas['NewEntry']) => Promise<void>;
	} = $props();
	let run = $state('');
	let words = $state('');
	let quantity = $state<'note' | 'hum_dbu' | 'level_dbu'>('note');
	let value = $state<number | null>(null);
	let refused = $state<string | null>(null);
	const ready = $derived(quantity === 'note' ? words.trim() !== '' : value !== null);

	async function add(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		refused = null;
		try {
			await onadd(
				newEntry(quantity === 'note' ? 'note' : 'reading', {
					run: run || null,
					words: words.trim(),
					measured: quantity === 'note' || value === null ? null : { quantity, value, predicted: null }
				})
			);
			words = '';
			value = null;
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			refused = reason.message;
		}
	}
</script>

<form class="in-a-row no-print" onsubmit={(event) => void add(event)} aria-label="Add to the log">
	<label class="field"
		><span>Add</span>
		<select bind:value={quantity}>
			<option value="note">a note</option>
			<option value="hum_dbu">measured hum</option>
			<option value="level_dbu">a measured level</option>
		</select></label
	>
	<label class="field"
		><span>About</span>
		<select bind:value={run}>
			<option value="">the whole rig</option>
			{#each runs as each (each.id)}<option value={each.id}>{each.number} {each.name}</option>{/each}
		</select></label
	>
	{#if quantity !== 'note'}
		<label class="field level"
			><span>Level in dBu</span> <input type="number" step="0.1" min="-200" max="60" bind:value /></label
		>
	{/if}
	<label class="field words"
		><span>Words</span>
		<input type="text" bind:value={words} maxlength="600" placeholder="crackle when M31 moves" /></label
	>
	<button type="submit" class="btn go" disabled={!ready}>Add</button>
	{#if refused}<p role="alert">{refused}</p>{/if}
</form>

<style>
	form {
		align-items: end;
	}
	.words {
		flex: 1 1 14rem;
	}
	.words input {
		width: 100%;
	}
	.level input {
		width: 7rem;
	}
</style>
