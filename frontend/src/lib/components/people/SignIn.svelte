<!-- Name and passphrase; at a trusted computer, the names of whoever may be on duty. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { pickName, signIn } from '../../api/people';
	import { ROLE_NAMES } from '../../domain/people';
	import type { Signing } from '../../state/signing.svelte';
	import Door from './Door.svelte';

	let { session, signing }: { session: Schemas['SessionBody']; signing: Signing } = $props();

	let name = $state('');
	let passphrase = $state('');
	let code = $state('');
	let asksCode = $state(false);
	const here = $derived(session.here);

	async function enter(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const body = { name: name.trim(), passphrase, code: asksCode && code.trim() !== '' ? code : null };
		if (await signing.attempt(() => signIn(body))) return;
		if (signing.refused?.code === 'code_needed') {
			asksCode = true;
			signing.refused = null;
		}
	}
</script>

<Door heading={here ? `Who is at ${here.name}?` : 'Sign in'}>
	{#if session.nobody_yet}
		<p>
			There is nobody here yet. Whoever runs this server adds the first owner with
			<code class="figure">ruvak add-person NAME</code> and opens the link that it prints.
		</p>
	{/if}
	{#if here}
		<ul class="names">
			{#each here.on_duty as person (person.id)}
				<li>
					<button
						type="button"
						disabled={signing.busy}
						onclick={() => void signing.attempt(() => pickName(person.id))}
					>
						<b>{person.name}</b><span class="quiet">{ROLE_NAMES[person.role]}</span>
					</button>
				</li>
			{:else}
				<li class="quiet">Nobody can pick their name here yet.</li>
			{/each}
		</ul>
		<h2 class="heading">With a passphrase</h2>
	{/if}
	<form onsubmit={(event) => void enter(event)} aria-label="Sign in">
		<label class="field">
			<span>Name</span>
			<input required maxlength="120" autocomplete="username" autocapitalize="none" bind:value={name} />
		</label>
		<label class="field">
			<span>Passphrase</span>
			<input
				required
				type="password"
				maxlength="128"
				autocomplete="current-password"
				bind:value={passphrase}
			/>
		</label>
		{#if asksCode}
			<label class="field">
				<span>One-time code from your phone</span>
				<!-- svelte-ignore a11y_autofocus -->
				<input
					required
					inputmode="numeric"
					autocomplete="one-time-code"
					pattern=" *[0-9 ]{'{6,12}'}"
					title="six digits"
					autofocus
					bind:value={code}
				/>
			</label>
		{/if}
		{#if signing.refused}<p class="refused" role="alert">{signing.refused.message}</p>{/if}
		<button type="submit" class="btn go" disabled={signing.busy}
			>{signing.busy ? 'Signing in…' : 'Sign in'}</button
		>
	</form>
	<p class="quiet">
		Forgotten your passphrase? An owner gives you a link to choose a new one. To look at one rig only, open
		the link you were given. <a href="#/phones">On a phone for the first time?</a>
	</p>
</Door>

<style>
	form {
		display: grid;
		gap: 0.9rem;
		justify-items: start;
		width: min(22rem, 100%);
	}
	form label,
	form input {
		width: 100%;
	}
	.names {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(min(12rem, 100%), 1fr));
		gap: 0.6rem;
		width: 100%;
	}
	.names button {
		display: grid;
		gap: 0.1rem;
		width: 100%;
		padding: 0.7rem 0.9rem;
		text-align: left;
		background: var(--panel);
		border: 1px solid var(--line-strong);
		border-left: 4px solid var(--accent);
	}
	.names button:hover {
		background: var(--raised);
	}
	.names span {
		font-size: 0.8125rem;
	}
	a {
		text-decoration: underline;
	}
</style>
