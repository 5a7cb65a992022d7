<!-- Which rig, how it stands in four counts, whether it is saved, and the way back. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { occasionsQuery } from '../../api/house';
	import { rigsQuery } from '../../api/queries';
	import type { RigView } from '../../api/rig-view';
	import { Moon, Redo2, Sun, Undo2 } from '@lucide/svelte';
	import { clock } from '../../domain/format';
	import { dayOf } from '../../domain/occasions';
	import { GRADES } from '../../domain/grades';
	import { getDesk } from '../../state/desk.svelte';
	import { theme } from '../../state/theme.svelte';
	import LineInput from '../entry/LineInput.svelte';
	import GradeMark from '../marks/GradeMark.svelte';

	let { state, onhelp }: { state: RigView | undefined; onhelp: () => void } = $props();
	const desk = getDesk();

	const rigs = createQuery(() => rigsQuery());
	// The date is no news that everybody must ask for every few seconds.
	const occasions = createQuery(() => ({
		...occasionsQuery(),
		refetchInterval: false as const,
		enabled: !desk.byLink
	}));
	const date = $derived.by(() => {
		const own = rigs.data?.find(({ id }) => id === state?.rig.id)?.date;
		const occasion = occasions.data?.find(({ id }) => id === own);
		return occasion ? dayOf(occasion.starts_at) : '';
	});

	const saying = $derived(
		{ saving: 'Saving…', unsaved: 'Not saved', saved: state ? `Saved ${clock(state.saved_at)}` : '' }[
			desk.sync.saving
		]
	);
</script>

<header class="top">
	<div class="names">
		<h1>{state?.rig.name ?? 'Ruvak'}</h1>
		<span class="quiet venue">{state?.rig.venue.name ?? ''}{date ? `, ${date}` : ''}</span>
	</div>
	{#if state && desk.may('plan')}<LineInput />{/if}
	{#if state}
		<ul class="verdict" aria-label="Runs by their worst finding">
			{#each GRADES as grade (grade)}
				<li class:none={state.analysis.verdict[grade] === 0}>
					<GradeMark {grade} words={`${state.analysis.verdict[grade]} ${grade}`} />
				</li>
			{/each}
		</ul>
	{/if}
	<div class="tools no-print">
		<span
			class="saved"
			class:unsaved={desk.sync.saving === 'unsaved'}
			class:as-it-should-be={desk.sync.saving === 'saved'}
			role="status">{saying}</span
		>
		<button
			type="button"
			class="tool"
			disabled={!state?.undo_label || !desk.may('record')}
			title={state?.undo_label ? `Undo “${state.undo_label}” (U)` : 'Nothing of yours to undo'}
			aria-label="Undo"
			onclick={() => void desk.sync.undo()}><Undo2 size={18} /></button
		>
		<button
			type="button"
			class="tool"
			disabled={!state?.redo_label || !desk.may('record')}
			title={state?.redo_label ? `Redo “${state.redo_label}” (Shift U)` : 'Nothing to redo'}
			aria-label="Redo"
			onclick={() => void desk.sync.redo()}><Redo2 size={18} /></button
		>
		<button
			type="button"
			class="tool"
			title={theme.current === 'booth' ? 'Daylight theme (T)' : 'Booth theme (T)'}
			aria-label={theme.current === 'booth' ? 'Switch to the Daylight theme' : 'Switch to the Booth theme'}
			onclick={() => theme.toggle()}
			>{#if theme.current === 'booth'}<Sun size={18} />{:else}<Moon size={18} />{/if}</button
		>
		<button
			type="button"
			class="tool keys"
			title="Keys and lines (?)"
			aria-label="Show the keys"
			onclick={onhelp}>?</button
		>
	</div>
</header>

<style>
	.top {
		grid-area: top;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.35rem 1.75rem;
		padding: 0.5rem 1.1rem;
		border-bottom: 1px solid var(--line);
		background: var(--ground);
	}
	.names {
		display: flex;
		align-items: baseline;
		gap: 0.8rem;
		min-width: 0;
	}
	h1 {
		font-size: 1.35rem;
		white-space: nowrap;
	}
	.venue {
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.verdict {
		display: flex;
		gap: 1.1rem;
		margin-left: auto;
	}
	.none {
		opacity: 1;
		filter: grayscale(1);
	}
	.tools {
		display: flex;
		align-items: center;
		gap: 0.25rem;
	}
	.saved {
		font-size: 0.8125rem;
		color: var(--dim);
		margin-right: 0.6rem;
		min-width: 6.6rem;
		text-align: right;
	}
	.unsaved {
		color: var(--stop);
		font-weight: 600;
	}
	.tool {
		display: inline-grid;
		place-items: center;
		width: 2.1rem;
		height: 2.1rem;
		color: var(--ink);
		border-radius: 3px;
	}
	.tool:hover:not(:disabled) {
		background: var(--raised);
	}
	.tool:disabled {
		color: var(--line-strong);
		cursor: default;
	}
	.keys {
		font-weight: 650;
	}
	@media (max-width: 720px) {
		.top {
			padding: 0.45rem 0.8rem;
			gap: 0.3rem 0.8rem;
		}
		.venue {
			display: none;
		}
		.verdict {
			order: 3;
			width: 100%;
			margin: 0;
			justify-content: space-between;
			font-size: 0.85rem;
		}
		.tools {
			margin-left: auto;
		}
		.names {
			flex: 1;
		}
		h1 {
			overflow: hidden;
			text-overflow: ellipsis;
		}
		.saved {
			min-width: 0;
		}
		/* A small screen says only what is not as it should be; a reader hears it as before. */
		.as-it-should-be {
			position: absolute;
			width: 1px;
			overflow: hidden;
			clip-path: inset(50%);
		}
		.keys {
			display: none;
		}
	}
</style>
