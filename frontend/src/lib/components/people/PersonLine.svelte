<!-- One person: name, role, whether they are in yet, and what an owner does about them. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { changePerson, removePerson, renewPassphrase } from '../../api/people';
	import { clock, day } from '../../domain/format';
	import { ROLES, ROLE_NAMES, type Role } from '../../domain/people';
	import { Asking } from '../../state/asking.svelte';

	interface Props {
		person: Schemas['PersonSummary'];
		onchanged: () => Promise<unknown>;
		onlink: (link: Schemas['MadeLink']) => void;
	}
	let { person, onchanged, onlink }: Props = $props();

	const asking = new Asking();
	let removing = $state(false);
	const seen = $derived(
		person.seen_at === null
			? 'not signed in'
			: `signed in at ${person.sign_ins} ${person.sign_ins === 1 ? 'browser' : 'browsers'}, last used ${day(person.seen_at)} ${clock(person.seen_at)}`
	);

	async function give(select: HTMLSelectElement): Promise<void> {
		const role = select.value as Role;
		if (!(await asking.ask(() => changePerson(person.id, { name: null, role })))) select.value = person.role;
		await onchanged();
	}

	async function call(input: HTMLInputElement): Promise<void> {
		const name = input.value.trim();
		if (name === '' || !(await asking.ask(() => changePerson(person.id, { name, role: null }))))
			input.value = person.name;
		await onchanged();
	}

	async function link(): Promise<void> {
		const made = await asking.ask(() => renewPassphrase(person.id));
		if (made) onlink(made.result);
	}

	async function remove(): Promise<void> {
		await asking.ask(() => removePerson(person.id));
		removing = false;
		await onchanged();
	}
</script>

<li>
	<input
		class="name"
		aria-label="Name of {person.name}"
		maxlength="120"
		value={person.name}
		onchange={(event) => void call(event.currentTarget)}
	/>
	<select
		aria-label="Role of {person.name}"
		value={person.role}
		onchange={(event) => void give(event.currentTarget)}
	>
		{#each Object.keys(ROLES) as role (role)}<option value={role}>{ROLE_NAMES[role as Role]}</option>{/each}
	</select>
	<span class="state">
		{#if person.has_passphrase}{seen}{person.has_codes ? '; uses one-time codes' : ''}
		{:else}<b>has not chosen a passphrase yet</b>{/if}
	</span>
	<span class="doing">
		<button type="button" class="in-text" onclick={() => void link()}
			>{person.has_passphrase ? 'New passphrase link' : 'New link'}<span class="sr-only">
				for {person.name}</span
			></button
		>
		<button type="button" class="in-text" onclick={() => (removing = true)}
			>Remove<span class="sr-only"> {person.name}</span></button
		>
	</span>
	{#if removing}
		<div class="asked" role="alertdialog" aria-label="Remove {person.name}?">
			<p>
				<b>{person.name}</b> is signed out everywhere and can no longer sign in. What they did keeps their name.
			</p>
			<!-- svelte-ignore a11y_autofocus -->
			<button type="button" class="btn preset-tonal" autofocus onclick={() => (removing = false)}>Keep</button
			>
			<button type="button" class="btn away" onclick={() => void remove()}>Remove</button>
		</div>
	{/if}
	{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
</li>

<style>
	li {
		display: grid;
		grid-template-columns: minmax(9rem, 14rem) 8.5rem minmax(0, 1fr) auto;
		gap: 0.4rem 1.1rem;
		align-items: baseline;
		padding: 0.55rem 0.25rem;
		border-bottom: 1px solid var(--line);
		font-size: 0.875rem;
	}
	.name,
	select {
		background: transparent;
		border: 0;
		border-bottom: 1px solid var(--line-strong);
		color: var(--ink);
		padding: 0.2rem 0.1rem;
		min-width: 0;
	}
	.name {
		font-weight: 600;
		font-size: 1rem;
	}
	select option {
		background: var(--panel);
	}
	.state b {
		color: var(--watch);
		font-weight: 600;
	}
	.doing {
		display: flex;
		gap: 1rem;
	}
	.asked,
	.asked {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.6rem 1rem;
	}
	.away {
		border: 1px solid var(--stop);
		color: var(--ink);
	}
	@media (max-width: 860px) {
		li {
			grid-template-columns: minmax(0, 1fr) auto;
		}
		.state,
		.doing {
			grid-column: 1 / -1;
		}
	}
</style>
