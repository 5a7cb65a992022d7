<!-- Something that is not good yet: what is the matter, what it costs, who is at it. -->
<script lang="ts">
	import { inWords, STATE_WORDS } from '../../domain/check';
	import type { OpenItem } from '../../domain/doors';
	import StateMark from '../check/StateMark.svelte';
	import Tape from '../marks/Tape.svelte';

	let {
		open,
		there,
		own,
		address,
		may,
		ontake,
		onleave
	}: {
		open: OpenItem;
		/** Who else is at it. */
		there: readonly string[];
		/** Whether somebody said so on this device. */
		own: boolean;
		address: string;
		may: boolean;
		ontake: () => void;
		onleave: () => void;
	} = $props();
	const said = $derived(
		[open.standing?.heard ? inWords(open.standing.heard).toLowerCase() : '', open.standing?.words ?? '']
			.filter(Boolean)
			.join(', ')
	);
</script>

<li class:wrong={open.state === 'wrong'}>
	<StateMark state={open.state} size={22} />
	<a class="name" href="#{address}"
		>{#if !open.item.step}<span class="figure">{open.item.number}</span>{/if}
		<Tape name={open.item.name} /></a
	>
	<div class="what">
		<p><b>{STATE_WORDS[open.state]}</b>{said ? `: ${said}` : ''}</p>
		<p class="quiet">{open.loss}</p>
	</div>
	<div class="who">
		{#if there.length > 0}<span>{there.join(', ')} {there.length === 1 ? 'is' : 'are'} at it</span>{/if}
		{#if own}
			<span><b>You are at it</b></span>
			{#if may}<button type="button" class="btn preset-tonal" onclick={onleave}>Leave it</button>{/if}
		{:else if may}
			<button type="button" class="btn preset-tonal" onclick={ontake}
				>{there.length > 0 ? 'I help' : 'I take it'}</button
			>
		{/if}
	</div>
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 1.6rem minmax(9rem, 15rem) minmax(0, 1fr) minmax(8rem, auto);
		gap: 0.4rem 0.9rem;
		align-items: center;
		padding: 0.55rem 0.4rem;
		border-bottom: 1px solid var(--line);
	}
	.wrong {
		background: var(--stop-wash);
	}
	.name {
		display: flex;
		gap: 0.5rem;
		align-items: center;
		text-decoration: none;
	}
	.who {
		display: flex;
		flex-wrap: wrap;
		gap: 0.5rem;
		align-items: center;
		justify-content: flex-end;
	}
	.who button {
		min-height: 44px;
	}
	@media (max-width: 720px) {
		li {
			grid-template-columns: 1.6rem minmax(0, 1fr);
		}
		.what,
		.who {
			grid-column: 2;
		}
		.who {
			justify-content: flex-start;
		}
	}
</style>
