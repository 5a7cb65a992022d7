<!-- One rig in the list: what it holds and what was done last; look into it, open, copy, export, delete it. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { compareAddress } from '../../domain/address';
	import { day } from '../../domain/format';
	import { getDesk } from '../../state/desk.svelte';
	import RigGlance from './RigGlance.svelte';

	interface Props {
		rig: Schemas['RigSummary'];
		isOpen: boolean;
		suggested: string;
		onopen: () => void;
		/** The day of its occasion; empty without one. */
		date: string;
		/** The open rig's id, to compare with. */
		openId: string | null;
		onshelve: (shelf: Schemas['RigSummary']['shelf']) => Promise<void>;
		oncopy: (name: string, occasion: string) => Promise<void>;
		ondelete: () => Promise<void>;
	}
	let { rig, isOpen, suggested, date, openId, onopen, onshelve, oncopy, ondelete }: Props = $props();

	const desk = getDesk();

	/** Where it can go from its shelf, in words. */
	const MOVES: Record<Schemas['RigSummary']['shelf'], Record<string, string>> = {
		plans: { templates: 'Make a template', archive: 'Archive' },
		templates: { plans: 'Make a plan' },
		archive: { plans: 'Bring back' }
	};
	const counted = (count: number, one: string, more: string): string =>
		`${count} ${count === 1 ? one : more}`;
	const holds = $derived([
		counted(rig.runs, 'run', 'runs'),
		counted(rig.devices, 'device', 'devices'),
		...(rig.to_get > 0 ? [`${rig.to_get} to borrow or buy`] : [])
	]);

	let looking = $state(false);
	let asking = $state<'copy' | 'delete' | null>(null);
	let name = $state('');
	let occasion = $state('');

	function askCopy(): void {
		name = suggested;
		occasion = '';
		asking = 'copy';
	}

	async function copy(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		await oncopy(name.trim(), occasion.trim());
		asking = null;
	}
</script>

<li class:open={isOpen}>
	<div class="line">
		<button type="button" class="name" aria-current={isOpen ? 'true' : undefined} onclick={onopen}
			>{rig.name}</button
		>
		<span class="where">{rig.venue}{rig.occasion ? `, ${rig.occasion}` : ''}{date ? `, ${date}` : ''}</span>
		<span class="quiet">{isOpen ? 'open' : `saved ${day(rig.saved_at)}`}</span>
		<span class="doing">
			<button type="button" aria-expanded={looking} onclick={() => (looking = !looking)}
				>{looking ? 'Hide runs' : 'Show runs'}<span class="sr-only"> of {rig.name}</span></button
			>
			{#if desk.may('plan')}
				<button type="button" aria-label="Copy {rig.name}" onclick={askCopy}
					>{rig.shelf === 'templates' ? 'New from this' : 'Copy'}</button
				>
			{/if}
			{#if openId !== null && !isOpen}
				<a href="#{compareAddress(rig.id, openId)}" aria-label="Compare {rig.name} with the open rig"
					>Compare</a
				>
			{/if}
			<a href="/api/rigs/{rig.id}/file" download>Export</a>
			<a href="/api/rigs/{rig.id}/netlists" download>SPICE netlists</a>
			{#if desk.may('plan')}
				{#each Object.entries(MOVES[rig.shelf]) as [shelf, words] (shelf)}
					<button
						type="button"
						aria-label="{words}: {rig.name}"
						onclick={() => void onshelve(shelf as Schemas['RigSummary']['shelf'])}>{words}</button
					>
				{/each}
				<button type="button" aria-label="Delete {rig.name}" onclick={() => (asking = 'delete')}
					>Delete</button
				>
			{/if}
		</span>
		<p class="holds">
			{#each holds as words (words)}<span>{words}</span>{/each}
			{#if rig.last_change}<span class="last">last: {rig.last_change}, {rig.changed_by}</span>{/if}
		</p>
	</div>
	{#if looking}<RigGlance rigId={rig.id} />{/if}
	{#if asking === 'copy'}
		<form class="asked" aria-label="Copy {rig.name}" onsubmit={(event) => void copy(event)}>
			<label class="field">
				<span>The copy is called</span>
				<!-- svelte-ignore a11y_autofocus -->
				<input required maxlength="120" pattern=".*\S.*" title="a name" autofocus bind:value={name} />
			</label>
			<label class="field">
				<span>Occasion (may stay empty)</span>
				<input maxlength="600" bind:value={occasion} />
			</label>
			<button type="submit" class="btn go">Copy and open</button>
			<button type="button" class="btn" onclick={() => (asking = null)}>Cancel</button>
		</form>
	{:else if asking === 'delete'}
		<div class="asked" role="alertdialog" aria-label="Delete {rig.name}?">
			<p>
				<b>{rig.name}</b> and its history are deleted for good. Export it first: imported again it comes back without
				its history.
			</p>
			<!-- svelte-ignore a11y_autofocus -->
			<button type="button" class="btn preset-tonal" autofocus onclick={() => (asking = null)}>Keep it</button
			>
			<button type="button" class="btn away" onclick={() => void ondelete()}>Delete for good</button>
		</div>
	{/if}
</li>

<style>
	.holds {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		gap: 0.1rem 1.2rem;
		margin: 0.15rem 0 0;
		font-size: 0.875rem;
		color: var(--dim);
	}
	.last {
		flex: 1 1 20rem;
		text-align: right;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.open {
		border-left: 3px solid var(--accent);
		padding-left: 0.8rem;
	}
	li {
		padding: 0.6rem 0.25rem;
		border-bottom: 1px solid var(--line);
	}
	.line {
		display: grid;
		grid-template-columns: minmax(11rem, auto) 1fr auto;
		gap: 0.4rem 1.4rem;
		align-items: baseline;
	}
	.doing {
		grid-column: 1 / -1;
		grid-row: 3;
		font-size: 0.875rem;
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.3rem 1.1rem;
	}
	.name {
		font-weight: 600;
		text-align: left;
	}
	.name,
	.doing > * {
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 1.5rem;
	}
	.open .name {
		text-decoration-thickness: 2px;
	}
	.asked {
		display: flex;
		flex-wrap: wrap;
		align-items: end;
		gap: 0.7rem 1.2rem;
		padding: 0.8rem 0 0.5rem;
	}
	.asked p {
		max-width: 34rem;
	}
	.away {
		border: 1px solid var(--stop);
		color: var(--ink);
	}
	@media (max-width: 860px) {
		.line {
			grid-template-columns: 1fr auto;
		}
		.where {
			grid-column: 1 / -1;
			grid-row: 2;
		}
		.last {
			text-align: left;
		}
		.doing {
			grid-column: 1 / -1;
			grid-row: 4;
		}
	}
</style>
