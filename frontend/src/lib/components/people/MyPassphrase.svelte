<!-- Another passphrase, with the present one. -->
<script lang="ts">
	import { changePassphrase } from '../../api/people';
	import { Asking } from '../../state/asking.svelte';
	import NewPassphrase from './NewPassphrase.svelte';
	import Part from './Part.svelte';

	const asking = new Asking();
	let open = $state(false);
	let changed = $state(false);
	let present = $state('');
	let next = $state('');

	async function change(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (!(await asking.ask(() => changePassphrase({ present, new: next })))) return;
		changed = true;
		open = false;
		present = next = '';
	}
</script>

<Part
	heading="Passphrase"
	words={changed ? 'Changed. Your other browsers are signed out.' : 'You sign in with your name and this.'}
	refused={asking.refused}
>
	{#if open}
		<form onsubmit={(event) => void change(event)} aria-label="Change the passphrase">
			<label class="field">
				<span>Present passphrase</span>
				<input
					required
					type="password"
					maxlength="128"
					autocomplete="current-password"
					bind:value={present}
				/>
			</label>
			<NewPassphrase bind:value={next} />
			<div class="doing">
				<button type="submit" class="btn go" disabled={asking.busy}>Change</button>
				<button type="button" class="btn" onclick={() => (open = false)}>Cancel</button>
			</div>
		</form>
	{:else}
		<button type="button" class="btn preset-tonal" onclick={() => (open = true)}>Change the passphrase</button
		>
	{/if}
</Part>

<style>
	form {
		display: grid;
		gap: 0.9rem;
		width: min(22rem, 100%);
	}
	form input {
		width: 100%;
	}
	.doing {
		display: flex;
		gap: 0.6rem;
	}
</style>
