<!-- How far the check is, and whether everything is with the server. -->
<script lang="ts">
	import { stateOf } from '../../domain/check';
	import { ROLES, type Role } from '../../domain/working';
	import { getDesk } from '../../state/desk.svelte';
	import PrintSheets from '../print/PrintSheets.svelte';
	import JoinByCode from './JoinByCode.svelte';
	import NoNetwork from './NoNetwork.svelte';
	import type { CheckBook } from '../../state/check-book.svelte';

	const desk = getDesk();
	let {
		book,
		may,
		role,
		onrole,
		paper,
		onpaper
	}: {
		book: CheckBook;
		may: boolean;
		role: Role;
		onrole: (role: Role) => void;
		/** Whether the printed sheet is typed in. */
		paper: boolean;
		onpaper: () => void;
	} = $props();
	const states = $derived(book.items.map(({ run }) => stateOf(book.standing.get(run))));
	const count = (wanted: string): number => states.filter((state) => state === wanted).length;
	const missing = $derived(book.runs.length - book.cardsRead);
</script>

<header>
	<h2>
		Line check{#if book.check}<span class="whose">{book.check.name}</span>{/if}
	</h2>
	{#if book.check}
		<p class="figure counts">
			<b>{count('good')}</b> good, <b>{count('wrong')}</b> wrong, <b>{count('skipped')}</b> skipped,
			<b>{count('open') + count('changed')}</b> open
		</p>
		<div class="acts no-print">
			{#if may}
				<div class="segments" role="group" aria-label="Your part">
					{#each ROLES as { id, words } (id)}
						<button type="button" aria-pressed={role === id} onclick={() => onrole(id)}>{words}</button>
					{/each}
				</div>
				<button type="button" class="btn preset-tonal wide" aria-pressed={paper} onclick={onpaper}
					>From paper</button
				>
			{/if}
			{#if book.online && desk.may('plan') && !desk.byLink}
				<span class="wide"><PrintSheets rigId={book.rig} first="check" /></span>
				<JoinByCode rig={book.rig} name={book.check.name} />
			{/if}
		</div>
	{/if}
</header>
<NoNetwork {book} />
{#if !may && book.online}
	<p class="note">You see this check; answering it takes a helper's name or a link that records.</p>
{:else if book.online && book.runs.length > 0 && count('open') + count('changed') === 0}
	<p class="note quiet" role="status">
		Everything has an answer{count('wrong') + count('skipped') === 0 ? '; nothing is left.' : '.'}
	</p>
{:else if book.online && book.check && missing > 0}
	<p class="note quiet" role="status">
		Getting ready to go on without a network: {book.cardsRead} of {book.runs.length} cards are on this device.
	</p>
{/if}

<style>
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		justify-content: space-between;
		gap: 0.2rem 1rem;
		padding: 0.75rem 1.25rem 0.5rem;
	}
	h2 {
		font-size: 1.25rem;
	}
	.counts {
		color: var(--dim);
	}
	.note {
		padding: 0.5rem 1.25rem;
	}
	.acts {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		align-items: center;
	}
	@media (max-width: 720px) {
		.wide {
			display: none;
		}
		header,
		.note {
			padding-inline: 0.9rem;
		}
	}
	/* Text at 200 % on a phone: the card and its answers come first, everything else after them. */
	@media (max-width: 20em) {
		header {
			display: contents;
		}
		h2,
		.counts {
			padding: 0.2rem 0.5rem 0;
			font-size: 0.9rem;
		}
		.whose {
			display: none;
		}
		.acts,
		.note.quiet {
			order: 2;
			padding: 0.5rem;
		}
		:global(section.check > .beside) {
			display: contents;
		}
		:global(section.check > *),
		:global(section.check > .beside > *) {
			flex: none;
		}
		:global(section.check > .beside > .card) {
			order: 1;
		}
		:global(section.check > .beside > .lists) {
			order: 3;
		}
	}
</style>
