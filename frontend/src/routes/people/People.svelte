<!-- For owners: who may do what, links to choose a passphrase, computers at which names are picked. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import type { Schemas } from '../../lib/api/client';
	import { addPerson, peopleQuery } from '../../lib/api/people';
	import Computers from '../../lib/components/people/Computers.svelte';
	import HouseFile from '../../lib/components/people/HouseFile.svelte';
	import PersonLine from '../../lib/components/people/PersonLine.svelte';
	import ShownLink from '../../lib/components/people/ShownLink.svelte';
	import { byRole, ROLES, ROLE_NAMES, type Role } from '../../lib/domain/people';
	import { Asking } from '../../lib/state/asking.svelte';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const queries = useQueryClient();
	const people = createQuery(() => ({ ...peopleQuery(), enabled: desk.may('people') }));
	const asking = new Asking();

	let adding = $state(false);
	let name = $state('');
	let role = $state<Role>('technician');
	let link = $state<Schemas['MadeLink'] | null>(null);

	const groups = $derived(byRole(people.data ?? []));

	const renew = () => queries.invalidateQueries({ queryKey: peopleQuery().queryKey });

	async function add(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const made = await asking.ask(() => addPerson({ name: name.trim(), role }));
		if (!made) return;
		link = made.result;
		adding = false;
		name = '';
		await renew();
	}
</script>

<svelte:head><title>People · Ruvak</title></svelte:head>

<section class="people">
	<header>
		<div>
			<h2>People</h2>
			<p class="quiet">Who may plan, who works on stage, who looks on. Changes hold at once, everywhere.</p>
		</div>
		{#if desk.may('people')}
			<button type="button" class="btn go" disabled={adding} onclick={() => (adding = true)}
				>Add somebody</button
			>
		{/if}
	</header>
	{#if !desk.may('people')}
		<p>Only an owner manages people.</p>
	{:else}
		{#if adding}
			<form class="adding" onsubmit={(event) => void add(event)} aria-label="Add somebody">
				<label class="field">
					<span>Name</span>
					<!-- svelte-ignore a11y_autofocus -->
					<input required maxlength="120" pattern=".*\S.*" title="a name" autofocus bind:value={name} />
				</label>
				<label class="field">
					<span>Role</span>
					<select bind:value={role}>
						{#each Object.entries(ROLES) as [one, words] (one)}
							<option value={one}>{ROLE_NAMES[one as Role]}: {words}</option>
						{/each}
					</select>
				</label>
				<button type="submit" class="btn go" disabled={asking.busy}>Add and make the link</button>
				<button type="button" class="btn" onclick={() => (adding = false)}>Cancel</button>
				{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
			</form>
		{/if}
		{#if link}
			<ShownLink {link} words="A link to choose a passphrase, once" onclose={() => (link = null)} />
		{/if}
		{#if people.isError}
			<p>The list could not be fetched. {people.error.message}</p>
		{:else}
			{#each groups as group (group.role)}
				<section aria-label={group.heading}>
					<h3 class="heading">{group.heading}<span class="quiet">{ROLES[group.role]}</span></h3>
					<ul>
						{#each group.people as person (person.id)}
							<PersonLine {person} onchanged={renew} onlink={(made) => (link = made)} />
						{/each}
					</ul>
				</section>
			{/each}
		{/if}
		<Computers />
		<HouseFile />
	{/if}
</section>

<style>
	.people {
		padding: 1.25rem 1.5rem 3rem;
		display: grid;
		grid-template-columns: minmax(0, 1fr);
		gap: 1.2rem;
		max-width: 68rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		align-items: start;
		gap: 0.6rem 1.5rem;
	}
	h2 {
		font-size: 1.4rem;
	}
	h3 {
		border-bottom: 1px solid var(--line-strong);
		padding-bottom: 0.2rem;
	}
	h3 span {
		font-family: inherit;
		font-weight: 400;
		margin-left: 0.8rem;
	}
	.adding {
		display: flex;
		flex-wrap: wrap;
		align-items: end;
		gap: 0.8rem 1.2rem;
		padding: 0.9rem 1rem 1rem;
		background: var(--panel);
	}
	.adding select {
		width: min(22rem, 100%);
	}
	@media (max-width: 720px) {
		.people {
			padding: 1rem;
		}
	}
</style>
