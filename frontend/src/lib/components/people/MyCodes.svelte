<!-- One-time codes from an authenticator on one's phone, for those who want them. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { offerCodes, stopCodes, useCodes } from '../../api/people';
	import { Asking } from '../../state/asking.svelte';
	import Part from './Part.svelte';

	const asking = new Asking();
	let offered = $state<Schemas['OfferedCodes'] | null>(null);
	let stopping = $state(false);
	let present = $state('');
	let code = $state('');
	let done = $state('');

	async function offer(): Promise<void> {
		offered = (await asking.ask(offerCodes))?.result ?? null;
		stopping = false;
	}

	async function start(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const secret = offered?.secret ?? '';
		if (await asking.ask(() => useCodes({ present, secret, code })))
			end('From now on signing in asks for a code too.');
	}

	async function stop(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (await asking.ask(() => stopCodes(present))) end('Signing in asks for the passphrase alone.');
	}

	function end(words: string): void {
		done = words;
		offered = null;
		stopping = false;
		present = code = '';
	}
</script>

{#snippet passphrase()}
	<label class="field">
		<span>Your passphrase</span>
		<input required type="password" maxlength="128" autocomplete="current-password" bind:value={present} />
	</label>
{/snippet}

<Part
	heading="One-time codes"
	words={done || 'Six digits from an authenticator on your phone, asked for after the passphrase.'}
	refused={asking.refused}
>
	{#if offered}
		<form onsubmit={(event) => void start(event)} aria-label="Use one-time codes">
			<img src={offered.qr} alt="QR code for the authenticator" width="150" height="150" />
			<p>Scan it, or type <span class="figure secret">{offered.secret}</span></p>
			{@render passphrase()}
			<label class="field">
				<span>The code it shows now</span>
				<input
					required
					inputmode="numeric"
					autocomplete="one-time-code"
					title="six digits"
					bind:value={code}
				/>
			</label>
			<div class="doing">
				<button type="submit" class="btn go" disabled={asking.busy}>Use codes</button>
				<button type="button" class="btn" onclick={() => (offered = null)}>Cancel</button>
			</div>
		</form>
	{:else if stopping}
		<form onsubmit={(event) => void stop(event)} aria-label="Stop one-time codes">
			{@render passphrase()}
			<div class="doing">
				<button type="submit" class="btn go" disabled={asking.busy}>Stop asking for codes</button>
				<button type="button" class="btn" onclick={() => (stopping = false)}>Cancel</button>
			</div>
		</form>
	{:else}
		<div class="doing">
			<button type="button" class="btn preset-tonal" onclick={() => void offer()}>Use codes</button>
			<button type="button" class="btn" onclick={() => (stopping = true)}>Stop using them</button>
		</div>
	{/if}
</Part>

<style>
	form {
		display: grid;
		gap: 0.8rem;
		width: min(24rem, 100%);
	}
	form input {
		width: 100%;
	}
	img {
		background: #fff;
	}
	.secret {
		overflow-wrap: anywhere;
	}
	.doing {
		display: flex;
		gap: 0.6rem;
	}
</style>
