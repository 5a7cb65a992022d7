<!-- What is heard instead, what is likely then, which lead or device it was, a photo and a note. -->
<script lang="ts">
	import { causesOf, HEARD, SEEN, type Card, type Heard, type NewEntry } from '../../domain/check';
	import TakePhoto from './TakePhoto.svelte';

	let {
		card,
		next,
		onphoto,
		oncancel,
		onsave,
		onmended
	}: {
		card: Card | undefined;
		/** What saving it as wrong is called. */
		next: string;
		onphoto: (picture: Blob) => Promise<string>;
		oncancel: () => void;
		onsave: (more: Partial<NewEntry>) => void;
		onmended: (more: Partial<NewEntry>) => void;
	} = $props();
	const PERCENT = 100;
	let heard = $state<Heard | null>(null);
	let words = $state('');
	let piece = $state<string | null>(null);
	let photos = $state<string[]>([]);
	const MOST_PHOTOS = 4;
	const causes = $derived(heard === null ? [] : causesOf(card, heard));
	const more = $derived<Partial<NewEntry>>({
		heard,
		words: words.trim(),
		things: piece === null ? [] : [piece],
		photos
	});
</script>

<div class="wrong">
	<h3>{card?.is_data ? 'What do you see?' : 'What do you hear?'}</h3>
	<div class="heard">
		{#each card?.is_data ? SEEN : HEARD as each (each.id)}
			<button type="button" aria-pressed={heard === each.id} onclick={() => (heard = each.id)}
				>{each.words}</button
			>
		{/each}
	</div>
	{#if heard !== null}
		{#if causes.length > 0}
			<h3>Likely causes</h3>
			<ol>
				{#each causes as cause (cause.words)}
					<li><span class="figure">{Math.round(cause.share * PERCENT)} %</span> {cause.words}</li>
				{/each}
			</ol>
		{:else if card === undefined}
			<p class="quiet" role="status">What is likely is being computed…</p>
		{/if}
		{#if card && card.pieces.length > 0}
			<div class="pieces" role="group" aria-label="Which piece it was">
				<span class="quiet">It was</span>
				{#each card.pieces as name, at (at)}
					{@const id = card.piece_ids[at] ?? ''}
					<button type="button" aria-pressed={piece === id} onclick={() => (piece = piece === id ? null : id)}
						>{name}</button
					>
				{/each}
			</div>
		{/if}
		<label class="field"
			><span>Note</span>
			<input type="text" bind:value={words} maxlength="300" placeholder="when moved" /></label
		>
		<div class="done">
			{#if photos.length < MOST_PHOTOS}
				<TakePhoto onphoto={(picture) => void onphoto(picture).then((id) => photos.push(id))} />
			{/if}
			{#if photos.length > 0}
				<span class="quiet" role="status">{photos.length === 1 ? '1 photo' : `${photos.length} photos`}</span>
			{/if}
		</div>
		<div class="done">
			<button type="button" class="btn go" onclick={() => onmended(more)}>Mended, it is good now</button>
			<button type="button" class="btn preset-tonal" onclick={() => onsave(more)}>{next}</button>
		</div>
	{/if}
	<button type="button" class="btn preset-tonal" onclick={oncancel}>Back</button>
</div>

<style>
	.wrong {
		display: grid;
		gap: 0.7rem;
		padding: 0.8rem 1rem 1rem;
		border-top: 1px solid var(--line);
	}
	h3 {
		font-size: 1rem;
	}
	.heard {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 0.5rem;
	}
	.heard button:last-child:nth-child(odd) {
		grid-column: 1 / -1;
	}
	.heard button,
	.pieces button {
		min-height: 44px;
		padding: 0.3rem 0.7rem;
		border: 1px solid var(--line-strong);
		background: var(--raised);
	}
	[aria-pressed='true'] {
		border-color: var(--accent);
		outline: 2px solid var(--accent);
	}
	ol {
		list-style: none;
		display: grid;
		gap: 0.35rem;
	}
	li {
		display: grid;
		grid-template-columns: 3.4rem minmax(0, 1fr);
	}
	.pieces,
	.done {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.5rem;
	}
	.done .btn {
		min-height: 3rem;
	}
</style>
