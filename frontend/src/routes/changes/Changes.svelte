<!-- Everything anyone did to this rig, newest first. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import PersonName from '../../lib/components/controls/PersonName.svelte';
	import { historyQuery, rigQuery } from '../../lib/api/queries';
	import { getDesk } from '../../lib/state/desk.svelte';

	const desk = getDesk();
	const rig = createQuery(() => ({
		...rigQuery(desk.selection.rigId ?? ''),
		enabled: desk.selection.rigId !== null
	}));
	const lines = createQuery(() => ({
		...historyQuery(desk.selection.rigId ?? '', rig.data?.version ?? ''),
		enabled: rig.data !== undefined
	}));
	const WORDS: Record<string, string> = { edit: '', undo: 'Undid: ', redo: 'Did again: ' };
	const when = (moment: string): string =>
		new Date(moment).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
</script>

<svelte:head><title>{rig.data ? `${rig.data.rig.name} · Changes` : 'Ruvak'}</title></svelte:head>

<section class="changes">
	<header>
		<h2>Changes</h2>
		<PersonName />
	</header>
	{#if lines.isError}
		<p>The changes could not be fetched. {lines.error.message}</p>
	{:else if !lines.data}
		<p class="quiet">Fetching the changes…</p>
	{:else if lines.data.length === 0}
		<p class="quiet">
			Nobody has changed anything yet. Whatever you do to the rig is listed here, and U takes your own latest
			back.
		</p>
	{:else}
		<ol>
			{#each lines.data as line (line.id)}
				<li class:undone={line.undone}>
					<span class="figure quiet">{when(line.made_at)}</span>
					<span>{WORDS[line.kind]}{line.label}{line.undone ? ' (taken back)' : ''}</span>
					<span class="quiet">{line.own ? 'you' : line.person}</span>
				</li>
			{/each}
		</ol>
	{/if}
</section>

<style>
	.changes {
		padding: 1.25rem 1.5rem;
		display: grid;
		gap: 0.9rem;
		max-width: 62rem;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 0.5rem 1.5rem;
	}
	h2 {
		font-size: 1.4rem;
	}
	li {
		display: grid;
		grid-template-columns: 13rem minmax(0, 1fr) auto;
		gap: 1rem;
		padding: 0.45rem 0;
		border-bottom: 1px solid var(--line);
	}
	.undone {
		color: var(--dim);
	}
	@media (max-width: 720px) {
		.changes {
			padding: 1rem;
		}
		li {
			grid-template-columns: 1fr auto;
		}
		li > :first-child {
			grid-column: 1 / -1;
		}
	}
</style>
