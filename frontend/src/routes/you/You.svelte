<!-- One's own account: name, passphrase, one-time codes, where one is signed in, and the way out. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { rename, sessionQuery } from '../../lib/api/people';
	import MyBrowsers from '../../lib/components/people/MyBrowsers.svelte';
	import MyCodes from '../../lib/components/people/MyCodes.svelte';
	import MyPassphrase from '../../lib/components/people/MyPassphrase.svelte';
	import { ROLES, ROLE_NAMES } from '../../lib/domain/people';
	import { Signing } from '../../lib/state/signing.svelte';

	const queries = useQueryClient();
	const session = createQuery(() => sessionQuery());
	const signing = new Signing(queries);
	const you = $derived(session.data);

	async function call(input: HTMLInputElement): Promise<void> {
		const name = input.value.trim();
		if (name === '' || name === you?.person_name) input.value = you?.person_name ?? '';
		else if (!(await signing.attempt(() => rename(name)))) input.value = you?.person_name ?? '';
	}
</script>

<svelte:head><title>You · Ruvak</title></svelte:head>

{#if you?.role}
	<section class="you">
		<header>
			<div>
				<h2>{you.person_name}</h2>
				<p class="quiet">
					{ROLE_NAMES[you.role]}: {ROLES[you.role]}{you.rig ? ', by a link to one rig' : ''}.
				</p>
			</div>
			{#if !you.demo}
				<button type="button" class="btn preset-tonal" onclick={() => void signing.out()}>Sign out</button>
			{/if}
		</header>
		{#if signing.refused}<p class="refused" role="alert">{signing.refused.message}</p>{/if}
		{#if you.rig === null}
			<label class="field">
				<span>Others see you as</span>
				<input maxlength="120" value={you.person_name} onchange={(event) => void call(event.currentTarget)} />
			</label>
		{/if}
		{#if you.account}
			<MyPassphrase />
			<MyCodes />
			<MyBrowsers />
			<p><a class="in-text" href="/api/me/file" download>Export everything that is kept about you</a></p>
		{:else if you.demo}
			<p class="quiet about">
				The demonstration signs in whoever sits at the computer it runs on; nobody else gets in without a
				passphrase. To manage people, add an owner: <code class="figure">script/ruvak add-person NAME</code> prints
				a link to choose a passphrase.
			</p>
		{:else}
			<p class="quiet about">A link needs no passphrase. It ends at its time, or when it is revoked.</p>
		{/if}
	</section>
{/if}

<style>
	.you {
		padding: 1.25rem 1.5rem 3rem;
		display: grid;
		gap: 1.4rem;
		justify-items: start;
		max-width: 60rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		align-items: start;
		gap: 0.6rem 1.5rem;
		width: 100%;
	}
	h2 {
		font-size: 1.4rem;
	}
	.about {
		max-width: 40rem;
	}
	@media (max-width: 720px) {
		.you {
			padding: 1rem;
		}
	}
</style>
