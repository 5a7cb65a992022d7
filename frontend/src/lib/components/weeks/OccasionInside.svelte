<!-- An occasion opened: its rigs, what was noted, and what can be done: the same again, another date, another rig. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { changeOccasion, putRig, removeOccasion, takeRigOut } from '../../api/house';
	import { addressOf, compareAddress } from '../../domain/address';
	import type { Entry } from '../../domain/cupboard';
	import { dayOf, sameRig, typedOf, type Occasion } from '../../domain/occasions';
	import { Asking } from '../../state/asking.svelte';
	import { getDesk } from '../../state/desk.svelte';
	import Notes from './Notes.svelte';
	import OccasionForm from './OccasionForm.svelte';
	import RigVerdict from './RigVerdict.svelte';

	interface Props {
		occasion: Occasion;
		/** The occasion it was made like. */
		earlier: Occasion | undefined;
		rigs: readonly Schemas['RigSummary'][];
		entries: readonly Entry[];
		onagain: () => void;
		/** What is different after others took the place of what is taken. */
		onsaid: (occasion: Occasion, said: readonly string[]) => void;
		onchange: () => Promise<void>;
	}
	let { occasion, earlier, rigs, entries, onagain, onsaid, onchange }: Props = $props();
	const desk = getDesk();
	const asking = new Asking();
	let changing = $state(false);
	let picked = $state('');
	/** What was refused because other rigs have the same things then, and can be done with others in their place. */
	let again = $state.raw<(() => Promise<Schemas['MadeAgain']>) | null>(null);

	const others = $derived(
		rigs.filter(({ id, shelf }) => shelf === 'plans' && !occasion.rigs.some((rig) => rig.id === id))
	);

	/** Tried as it is; where that is refused for what others have, the same with others in their place is offered. */
	async function ask(what: (replace: boolean) => Promise<Schemas['MadeAgain']>): Promise<void> {
		again = null;
		const made = await asking.ask(() => what(false));
		if (made) changing = false;
		else if (asking.problem?.code === 'already_taken') again = () => what(true);
		await onchange();
	}

	async function replace(): Promise<void> {
		const what = again;
		again = null;
		const made = what && (await asking.ask(what));
		if (made) {
			changing = false;
			onsaid(made.result.occasion, made.result.said);
		}
		await onchange();
	}

	const change = (body: Schemas['OccasionBody']): Promise<void> =>
		ask((replace) => changeOccasion(occasion.id, { ...body, replace }));

	async function put(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const rig = picked;
		if (!rig) return;
		picked = '';
		await ask((replace) => putRig(occasion.id, rig, replace));
	}

	async function plainly(what: () => Promise<unknown>): Promise<void> {
		await asking.ask(what);
		await onchange();
	}
</script>

<div class="inside">
	<ul class="of-rigs">
		{#each occasion.rigs as rig (rig.id)}
			{@const before = sameRig(rig, earlier)}
			<li>
				<a class="rig" href="#{addressOf({ station: 'runs', rig: rig.id, run: null })}">{rig.name}</a>
				<span class="quiet">{rig.venue}, {rig.runs} {rig.runs === 1 ? 'run' : 'runs'}</span>
				<RigVerdict rigId={rig.id} />
				{#if before && earlier}
					<a href="#{compareAddress(before.id, rig.id)}">Compare with {dayOf(earlier.starts_at)}</a>
				{/if}
				{#if desk.may('plan')}
					<button
						type="button"
						class="in-text"
						disabled={asking.busy}
						onclick={() => void plainly(() => takeRigOut(occasion.id, rig.id))}
						>Remove<span class="sr-only"> {rig.name}</span> from this date</button
					>
				{/if}
			</li>
		{/each}
	</ul>
	<Notes {occasion} {entries} {onchange} />
	{#if asking.refused}
		<div class="refused" role="alert">
			<p>{asking.refused}</p>
			{#if again}
				<button type="button" class="btn preset-tonal" onclick={() => void replace()}
					>Take others of the cupboard instead</button
				>
			{/if}
		</div>
	{/if}
	{#if desk.may('plan')}
		{#if changing}
			<OccasionForm
				label="Change {occasion.name}"
				start={typedOf(occasion)}
				button="Save date"
				busy={asking.busy}
				onsend={change}
				oncancel={() => (changing = false)}
			/>
		{:else}
			<div class="doing no-print">
				<button type="button" class="btn go" disabled={asking.busy} onclick={onagain}
					>The same a week later <kbd>L</kbd></button
				>
				<button type="button" class="btn preset-tonal" onclick={() => (changing = true)}>Change date</button>
				{#if others.length > 0}
					<form class="in-a-row" onsubmit={(event) => void put(event)}>
						<select aria-label="Rig for {occasion.name}" bind:value={picked}>
							<option value="">Add a rig…</option>
							{#each others as rig (rig.id)}
								<option value={rig.id}
									>{rig.name}{rig.occasion ? `, ${rig.occasion}` : ''}{rig.date
										? ' (has another date)'
										: ''}</option
								>
							{/each}
						</select>
						{#if picked}<button type="submit" class="btn preset-tonal">Add</button>{/if}
					</form>
				{/if}
				<button
					type="button"
					class="in-text"
					disabled={asking.busy}
					onclick={() => void plainly(() => removeOccasion(occasion.id))}
					>Delete date<span class="sr-only"> of {occasion.name}</span>, keep its rigs</button
				>
			</div>
		{/if}
	{/if}
</div>

<style>
	.inside {
		display: grid;
		gap: 0.9rem;
		padding: 0.4rem 0.75rem 1.1rem;
	}
	.of-rigs li {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 0.2rem 1.2rem;
		padding: 0.25rem 0;
		font-size: 0.875rem;
	}
	.of-rigs a {
		text-decoration: underline;
		text-underline-offset: 3px;
		min-height: 1.5rem;
	}
	.rig {
		font-weight: 600;
	}
	.doing {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 0.7rem 1rem;
	}
	.doing select {
		min-height: 2.1rem;
		max-width: 20rem;
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.35rem 0.6rem;
		font-size: 0.875rem;
	}
	kbd {
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 0.8em;
		opacity: 0.75;
		margin-left: 0.4rem;
	}
	.refused {
		display: grid;
		gap: 0.5rem;
		justify-items: start;
	}
</style>
