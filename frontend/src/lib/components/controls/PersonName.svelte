<!-- The name that stands beside one's changes for everybody else. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { renamePerson, sessionQuery } from '../../api/queries';

	const id = $props.id();
	const queries = useQueryClient();
	const session = createQuery(() => sessionQuery());

	async function rename(name: string): Promise<void> {
		const wanted = name.trim().slice(0, 120);
		if (wanted === '' || wanted === session.data?.person_name) return;
		queries.setQueryData(sessionQuery().queryKey, await renamePerson(wanted));
	}
</script>

{#if session.data}
	<div class="person">
		<label for={id} class="quiet">Others see you as</label>
		<input
			{id}
			value={session.data.person_name}
			maxlength="120"
			onchange={(event) => void rename(event.currentTarget.value)}
		/>
	</div>
{/if}

<style>
	.person {
		display: flex;
		align-items: baseline;
		gap: 0.6rem;
		font-size: 0.875rem;
	}
	input {
		background: transparent;
		border: 0;
		border-bottom: 2px solid var(--line-strong);
		padding: 0.15rem 0.2rem;
		width: 13rem;
		color: var(--ink);
	}
</style>
