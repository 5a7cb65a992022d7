<!-- One remedy with its effect. Hover or focus shows it on strip and ladder; Enter or a click applies it. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import { MediaQuery } from 'svelte/reactivity';
	import type { Schemas } from '../../api/client';
	import { worstOf } from '../../domain/grades';
	import { humChange, otherWords } from '../../domain/effects';
	import { signed, type LengthUnit } from '../../domain/format';
	import { getDesk } from '../../state/desk.svelte';
	import Strip from '../strip/Strip.svelte';
	import GradeMark from '../marks/GradeMark.svelte';

	/** Other runs told one by one. */
	const OTHERS = 4;

	interface Props {
		remedy: Schemas['Remedy'];
		/** Of the rig that it was solved on. */
		version: string;
		unit: LengthUnit;
		/** What the run has now; everything else on the preview is new. */
		kept: ReadonlySet<string>;
	}
	let { remedy, version, unit, kept }: Props = $props();
	// Where the bench lies below the runs, the preview comes to the remedy.
	const wide = new MediaQuery('min-width: 980px');
	const desk = getDesk();

	const mine = $derived(remedy.effects[0]);
	const others = $derived(remedy.effects.slice(1));
	const toGet = $derived(remedy.pieces.filter((piece) => !piece.in_kit));
	const looking = $derived(desk.preview.look?.id === remedy.id);
	// Fixed per card: a card that is taken away still gets its last blur, when nothing derived may be read.
	const id = untrack(() => remedy.id);
	// A finger has no hover: its first tap looks, the second applies.
	let lookedAtBefore = false;

	function press(event: MouseEvent): void {
		if (!desk.may('plan')) return;
		const finger = event instanceof PointerEvent && event.pointerType === 'touch';
		if (finger && !lookedAtBefore) return;
		void desk.sync.edit(remedy.edit);
	}
</script>

<button
	type="button"
	class="remedy"
	class:looking
	class:no-help={!remedy.helps}
	onpointerenter={(event) => event.pointerType !== 'touch' && desk.preview.lookAt({ ...remedy, version })}
	onpointerleave={(event) => event.pointerType !== 'touch' && desk.preview.lookAway(id)}
	onpointerdown={() => (lookedAtBefore = looking)}
	onfocus={() => desk.preview.lookAt({ ...remedy, version })}
	onblur={() => desk.preview.lookAway(id)}
	onclick={press}
>
	<span class="title">
		<span>{remedy.title}</span>
		<GradeMark grade={worstOf(remedy.after)} size={13} />
	</span>
	{#if remedy.detail}<span class="detail quiet">{remedy.detail}</span>{/if}
	{#if mine && remedy.helps}
		<span class="effect">
			{#if mine.before.centre_db !== null && mine.after.centre_db !== null}
				<span class="quiet">centre</span>
				<span class="figure">{signed(mine.before.centre_db)} → <b>{signed(mine.after.centre_db)} dB</b></span>
			{/if}
			{#if mine.before.arriving_dbu !== null && mine.after.arriving_dbu !== null && signed(mine.before.arriving_dbu) !== signed(mine.after.arriving_dbu)}
				<span class="quiet">arrives</span>
				<span class="figure"
					>{signed(mine.before.arriving_dbu)} → <b>{signed(mine.after.arriving_dbu)} dBu</b></span
				>
			{/if}
			{#if humChange(mine)}
				<span class="quiet">hum under programme</span>
				<span class="figure">{humChange(mine)?.[0]} → <b>{humChange(mine)?.[1]} dB</b></span>
			{/if}
		</span>
		{#if worstOf(remedy.after) !== 'clear'}<span class="still">{remedy.after.findings[0]?.sentence}</span
			>{/if}
	{:else}
		<span class="still">{remedy.effect}</span>
	{/if}
	{#if looking && others.length > 0}
		<span class="others quiet">
			{#each others.slice(0, OTHERS) as other (other.run)}
				<span>{other.name}: {otherWords(other)}</span>
			{/each}
			{#if others.length > OTHERS}<span>and {others.length - OTHERS} more</span>{/if}
		</span>
	{/if}
	{#if looking && !wide.current}
		<span class="on-phone"><Strip run={remedy.after} {unit} ghost {kept} /></span>
	{/if}
	{#if remedy.caution}<span class="caution">{remedy.caution}</span>{/if}
	<span class="stock quiet">
		{#if remedy.helps}
			{toGet.length === 0
				? remedy.pieces.length === 0
					? 'Nothing to fetch'
					: 'All in the kit'
				: `To borrow or buy: ${toGet.map((piece) => piece.words).join(', ')}`}
			· {others.length === 0
				? 'no other run touched'
				: others.length === 1
					? 'one other run changes'
					: `${others.length} other runs change`}
		{/if}
		{#if looking}<span class="apply"
				>{wide.current ? 'Enter' : 'Tap again'} {remedy.helps ? 'applies' : 'tries it'}</span
			>{/if}
	</span>
</button>

<style>
	.others {
		display: grid;
		font-size: 0.8125rem;
	}
	.remedy {
		display: grid;
		gap: 0.28rem;
		width: 100%;
		text-align: left;
		padding: 0.6rem 0.75rem;
		background: var(--raised);
		border: 1px solid var(--line);
		border-left: 3px solid var(--clear);
		color: var(--ink);
	}
	.no-help {
		border-left-color: var(--stop);
		background: transparent;
	}
	.looking {
		border-color: var(--accent);
	}
	.title {
		display: flex;
		justify-content: space-between;
		align-items: baseline;
		gap: 0.75rem;
		font-weight: 600;
		line-height: 1.3;
	}
	.detail {
		font-size: 0.85rem;
		line-height: 1.3;
	}
	.effect {
		display: grid;
		grid-template-columns: auto 1fr;
		column-gap: 0.6rem;
		font-size: 0.85rem;
	}
	.on-phone {
		display: block;
		min-width: 0;
	}
	.caution {
		font-size: 0.8125rem;
		border-left: 2px solid var(--watch);
		padding-left: 0.5rem;
	}
	.still {
		font-size: 0.85rem;
	}
	.stock {
		font-size: 0.8rem;
		display: flex;
		justify-content: space-between;
		gap: 0.75rem;
	}
	.apply {
		color: var(--accent);
		white-space: nowrap;
	}
</style>
