<!-- What was noted at an occasion: seen to or still open. Open notes go along to the next. -->
<script lang="ts">
	import { addNote, noteCondition, settleNote } from '../../api/house';
	import type { Entry } from '../../domain/cupboard';
	import type { Occasion } from '../../domain/occasions';
	import { Asking } from '../../state/asking.svelte';
	import { getDesk } from '../../state/desk.svelte';

	interface Props {
		occasion: Occasion;
		entries: readonly Entry[];
		onchange: () => Promise<void>;
	}
	let { occasion, entries, onchange }: Props = $props();
	const desk = getDesk();
	const asking = new Asking();
	let words = $state('');

	const entryOf = (id: string | null): Entry | undefined => entries.find((entry) => entry.id === id);

	async function ask(what: () => Promise<unknown>): Promise<void> {
		await asking.ask(what);
		await onchange();
	}

	async function note(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const noted = words.trim();
		if (!noted) return;
		await ask(() => addNote(occasion.id, noted));
		if (!asking.refused) words = '';
	}

	const suspect = (entry: Entry, remark: string): Promise<void> =>
		ask(() => noteCondition(entry.id, { condition: 'suspect', was: entry.condition, remark, number: null }));
</script>

<div class="notes">
	<ul>
		{#each occasion.notes as note (note.id)}
			{@const entry = entryOf(note.item)}
			<li class:done={note.done_by !== null}>
				<label>
					<input
						type="checkbox"
						checked={note.done_by !== null}
						disabled={!desk.may('record') || asking.busy}
						onchange={(event) => void ask(() => settleNote(note.id, event.currentTarget.checked))}
					/>
					<span>{note.words}</span>
				</label>
				<span class="quiet"
					>{note.person}{note.done_by ? `; seen to by ${note.done_by}` : ''}{entry &&
					entry.condition !== 'good'
						? `; ${entry.name} is ${entry.condition}`
						: ''}</span
				>
				{#if entry?.condition === 'good' && note.done_by === null && desk.may('record')}
					<button
						type="button"
						class="in-text"
						disabled={asking.busy}
						onclick={() => void suspect(entry, note.words)}>Mark {entry.name} as suspect</button
					>
				{/if}
			</li>
		{/each}
	</ul>
	{#if desk.may('record')}
		<form class="in-a-row no-print" onsubmit={(event) => void note(event)}>
			<input
				aria-label="Note for {occasion.name}"
				maxlength="300"
				placeholder="Note: crackle on M31, more towels"
				bind:value={words}
			/>
			<button type="submit" class="btn preset-tonal" disabled={asking.busy || !words.trim()}>Add note</button>
		</form>
	{/if}
	{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
</div>

<style>
	.notes {
		display: grid;
		gap: 0.5rem;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.1rem 1rem;
		padding: 0.2rem 0;
		font-size: 0.875rem;
	}
	label {
		display: inline-flex;
		gap: 0.6rem;
		align-items: baseline;
		min-height: 1.6rem;
	}
	.done label {
		color: var(--dim);
		text-decoration: line-through;
	}
	form input {
		flex: 1 1 16rem;
		max-width: 34rem;
		min-height: 2.1rem;
		background: var(--ground);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.35rem 0.6rem;
		font-size: 0.875rem;
	}
</style>
