<!-- The printed sheet, ticked at the desk, typed in afterwards: every line at once. -->
<script lang="ts">
	import { checkEntry, stateOf, type Answer } from '../../domain/check';
	import { timeOn } from '../../domain/doors';
	import { nowAsText } from '../../domain/format';
	import type { CheckBook } from '../../state/check-book.svelte';
	import Tape from '../marks/Tape.svelte';

	let { book, onclose }: { book: CheckBook; onclose: () => void } = $props();
	const ANSWERS: readonly { id: Answer; words: string }[] = [
		{ id: 'good', words: 'Good' },
		{ id: 'wrong', words: 'Wrong' },
		{ id: 'skipped', words: 'Skip' }
	];
	let given = $state<Record<string, Answer>>({});
	let words = $state<Record<string, string>>({});
	let when = $state('');
	const count = $derived(Object.keys(given).length);

	/** The time on the sheet, today; left out or still to come, now. */
	function moment(): string {
		const now = nowAsText();
		const typed = timeOn(now, when);
		return typed !== null && Date.parse(typed) < Date.parse(now) ? typed : now;
	}

	async function save(): Promise<void> {
		const at = moment();
		for (const item of book.items) {
			const answer = given[item.run];
			if (answer) await book.add(checkEntry(item, answer, { at, words: (words[item.run] ?? '').trim() }));
		}
		onclose();
	}
</script>

<form
	class="paper"
	aria-label="From paper"
	onsubmit={(event) => {
		event.preventDefault();
		void save();
	}}
>
	<p>
		Tick what was ticked on the sheet. Lines that are left open stay as they are; what was answered here
		before is kept in the log.
	</p>
	<label class="field"><span>Checked at (left out: now)</span><input type="time" bind:value={when} /></label>
	<ol>
		{#each book.items as item (item.run)}
			{@const state = stateOf(book.standing.get(item.run))}
			<li>
				<span class="figure">{item.step ? '' : item.number}</span>
				<span class="name"
					><Tape name={item.name} size="small" />{#if state !== 'open'}<small class="quiet">{state}</small
						>{/if}</span
				>
				<span class="choice" role="radiogroup" aria-label={item.name}>
					{#each ANSWERS as { id, words: label } (id)}
						<label class:on={given[item.run] === id}
							><input
								type="radio"
								name="paper-{item.run}"
								value={id}
								checked={given[item.run] === id}
								onchange={() => (given[item.run] = id)}
							/>{label}</label
						>
					{/each}
				</span>
				<input
					type="text"
					maxlength="300"
					aria-label="What was heard, {item.name}"
					placeholder="what was heard"
					bind:value={words[item.run]}
				/>
			</li>
		{/each}
	</ol>
	<div class="done">
		<button class="btn go" disabled={count === 0}>Save {count === 1 ? '1 answer' : `${count} answers`}</button
		>
		<button type="button" class="btn preset-tonal" onclick={onclose}>Back</button>
	</div>
</form>

<style>
	.paper {
		display: grid;
		gap: 0.9rem;
		padding: 1rem 1.25rem;
		justify-items: start;
	}
	ol {
		list-style: none;
		width: 100%;
		border-top: 1px solid var(--line);
	}
	li {
		display: grid;
		grid-template-columns: 2rem minmax(8rem, 1fr) auto minmax(8rem, 1fr);
		gap: 0.6rem;
		align-items: center;
		min-height: 44px;
		border-bottom: 1px solid var(--line);
	}
	.figure {
		text-align: right;
	}
	.name {
		display: flex;
		gap: 0.5rem;
		align-items: center;
	}
	.choice {
		display: flex;
	}
	.choice label {
		display: flex;
		align-items: center;
		gap: 0.35rem;
		min-height: 40px;
		padding: 0 0.6rem;
		border: 1px solid var(--line);
	}
	.on {
		background: var(--raised);
		font-weight: 600;
	}
	.done {
		display: flex;
		gap: 0.7rem;
	}
	@media (max-width: 720px) {
		li {
			grid-template-columns: 2rem minmax(0, 1fr);
			padding: 0.4rem 0;
		}
		.choice,
		li > input {
			grid-column: 2;
		}
	}
</style>
