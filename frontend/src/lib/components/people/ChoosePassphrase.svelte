<!-- By an owner's link: a new passphrase, chosen once. -->
<script lang="ts">
	import { choosePassphrase } from '../../api/people';
	import type { Signing } from '../../state/signing.svelte';
	import Door from './Door.svelte';
	import NewPassphrase from './NewPassphrase.svelte';

	interface Props {
		name: string;
		token: string;
		signing: Signing;
		onchosen: () => void;
	}
	let { name, token, signing, onchosen }: Props = $props();

	let passphrase = $state('');

	async function choose(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (await signing.attempt(() => choosePassphrase(token, passphrase))) onchosen();
	}
</script>

<Door heading="Welcome, {name}">
	<p>Choose the passphrase you will sign in with from now on.</p>
	<form onsubmit={(event) => void choose(event)} aria-label="Choose a passphrase">
		<input class="sr-only" autocomplete="username" readonly tabindex="-1" aria-hidden="true" value={name} />
		<NewPassphrase bind:value={passphrase} />
		{#if signing.refused}<p class="refused" role="alert">{signing.refused.message}</p>{/if}
		<button type="submit" class="btn go" disabled={signing.busy}>Choose and sign in</button>
	</form>
</Door>

<style>
	form {
		display: grid;
		gap: 0.9rem;
		justify-items: start;
		width: min(22rem, 100%);
	}
</style>
