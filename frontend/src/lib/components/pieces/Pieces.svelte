<!-- The selected run's pieces in order: open one to swap, move, take out or rewire it; plus signs insert one. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { rewire } from '../../api/queries';
	import { Trouble } from '../../api/client';
	import { inserted, itemOf, piecesOf, moved, swapped, without } from '../../domain/pieces';
	import { getDesk } from '../../state/desk.svelte';
	import PieceChoices from './PieceChoices.svelte';
	import WiringEditor from './WiringEditor.svelte';

	interface Props {
		rig: Schemas['Rig'];
		run: Schemas['RunAnalysis'];
	}
	let { rig, run }: Props = $props();
	const desk = getDesk();

	const pieces = $derived(piecesOf(rig, run.run));
	const parts = $derived(new Map((rig.parts ?? []).map((part) => [part.id, part])));
	/** A piece that is open, or a gap between two that is. */
	let at = $state<number | null>(null);
	let gap = $state<number | null>(null);
	let swapping = $state(false);
	let wiring = $state(false);
	let gaps = $state<string[]>([]);
	const piece = $derived(at === null ? undefined : pieces[at]);
	const part = $derived(piece && parts.get(piece.part));

	function close(): void {
		at = gap = null;
		swapping = false;
		gaps = [];
		desk.preview.lookAway('pieces');
	}

	function openPiece(index: number): void {
		const same = at === index;
		close();
		at = same ? null : index;
	}

	function openGap(index: number): void {
		const same = gap === index;
		close();
		gap = same ? null : index;
	}

	async function solved(next: Schemas['KitItem'][]): Promise<Schemas['Rewired'] | null> {
		try {
			return await rewire(rig.id, run.run, next);
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			gaps = [reason.message];
			return null;
		}
	}

	async function make(next: Schemas['KitItem'][]): Promise<void> {
		const found = await solved(next);
		if (!found) return;
		close();
		await desk.sync.edit(found.preview.edit);
	}

	const with_ = (choice: Schemas['PieceChoice']) =>
		gap !== null ? inserted(pieces, gap, itemOf(choice)) : swapped(pieces, at ?? 0, itemOf(choice));

	async function look(choice: Schemas['PieceChoice']): Promise<void> {
		const version = desk.sync.state?.version ?? '';
		const found = await solved(with_(choice));
		const after = found?.preview.analysis.runs.find((one) => one.run === run.run);
		if (!found || !after) return;
		gaps = [...found.gaps];
		desk.preview.lookAt({ id: 'pieces', title: choice.words, after, edit: found.preview.edit, version });
	}
</script>

<div class="pieces no-print" role="group" aria-label="Pieces of this run">
	<span class="heading">Pieces</span>
	{#each pieces as one, index (one.id)}
		<button
			type="button"
			class="plus"
			aria-label="Insert before {one.tag}"
			aria-expanded={gap === index}
			onclick={() => openGap(index)}>+</button
		>
		<button type="button" class="piece" aria-expanded={at === index} onclick={() => openPiece(index)}>
			{one.tag}
		</button>
	{/each}
	<button
		type="button"
		class="plus"
		aria-label={pieces.length ? 'Insert at the end' : 'Insert a piece'}
		aria-expanded={gap === pieces.length}
		onclick={() => openGap(pieces.length)}>+</button
	>
	{#if at !== null && piece && part}
		<div class="actions">
			<span class="quiet">{part.name}{piece.installed ? ', installed' : ''}</span>
			{#if !piece.installed}
				<button type="button" class="act" aria-expanded={swapping} onclick={() => (swapping = !swapping)}
					>Swap…</button
				>
				<button type="button" class="act" onclick={() => (wiring = true)}>Wiring…</button>
			{/if}
			<button
				type="button"
				class="act"
				disabled={at === 0}
				onclick={() => at !== null && void make(moved(pieces, at, -1))}>Move towards the source</button
			>
			<button
				type="button"
				class="act"
				disabled={at === pieces.length - 1}
				onclick={() => at !== null && void make(moved(pieces, at, 1))}>Move on</button
			>
			<button type="button" class="act" onclick={() => at !== null && void make(without(pieces, at))}
				>Take out</button
			>
		</div>
	{/if}
	{#if gap !== null || (swapping && at !== null)}
		<PieceChoices
			rigId={rig.id}
			runId={run.run}
			at={gap ?? at ?? 0}
			replace={gap === null}
			onlook={(choice) => void look(choice)}
			onpick={(choice) => void make(with_(choice))}
			onclose={close}
		/>
	{/if}
	{#each gaps as words, index (index)}<p class="gap">{words}</p>{/each}
</div>
{#if piece && part}
	<WiringEditor bind:open={wiring} rigId={rig.id} runId={run.run} item={piece} {part} />
{/if}

<style>
	.pieces {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.35rem 0.3rem;
		font-size: 0.875rem;
	}
	.heading {
		margin-right: 0.5rem;
	}
	.piece,
	.act {
		border: 1px solid var(--line-strong);
		padding: 0.2rem 0.6rem;
		min-height: 28px;
	}
	.piece[aria-expanded='true'],
	.plus[aria-expanded='true'] {
		border-color: var(--accent);
		color: var(--accent);
	}
	.plus {
		width: 28px;
		height: 28px;
		color: var(--dim);
		border: 1px dashed var(--line-strong);
	}
	.plus:hover,
	.piece:hover,
	.act:hover:enabled {
		background: var(--raised);
		color: var(--ink);
	}
	.act:disabled {
		opacity: 0.45;
		cursor: default;
	}
	.actions {
		flex-basis: 100%;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.4rem;
		padding-top: 0.35rem;
	}
	.gap {
		flex-basis: 100%;
		border-left: 3px solid var(--fix);
		padding-left: 0.6rem;
	}
</style>
