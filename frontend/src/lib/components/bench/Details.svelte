<!-- The selected run in numbers: levels, what is left of the centre, response, what really is balanced. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { inputName, keyOf, shownInput } from '../../domain/inputs';
	import { levelsOf } from '../../domain/ladder';
	import { ohm } from '../../domain/format';
	import { BALANCE_WORDS } from '../../domain/heard';
	import { getDesk } from '../../state/desk.svelte';
	import NextFrame from '../controls/NextFrame.svelte';
	import Budget from './Budget.svelte';
	import Curve from './Curve.svelte';
	import DataTable from './DataTable.svelte';
	import HissTable from './HissTable.svelte';
	import HumTable from './HumTable.svelte';
	import LevelsTable from './LevelsTable.svelte';
	import MetersTable from './MetersTable.svelte';
	import LoudspeakerTable from './LoudspeakerTable.svelte';

	interface Props {
		rig: Schemas['Rig'];
		run: Schemas['RunAnalysis'];
		after: Schemas['RunAnalysis'] | null;
	}
	let { rig, run, after }: Props = $props();

	const desk = getDesk();

	const input = $derived(shownInput(run, desk.selection.inputKey));
	const then = $derived(after && input ? shownInput(after, keyOf(input)) : undefined);
	const levels = $derived(levelsOf(input));
	const label = $derived(input ? inputName(rig, run, input) : '');
	const sum = $derived(run.result.mixes[0]?.sum ?? input?.sum);
</script>

{#snippet curve()}
	{#if input?.response}
		{@const response = input.response}
		<NextFrame><Curve {response} after={then?.response ?? null} /></NextFrame>
	{/if}
{/snippet}

{#if run.result.data}
	<div class="details"><div><DataTable {rig} line={run.result.data} /></div></div>
{:else if input}
	{#if run.result.inputs.length > 1}
		<div class="segments which" role="group" aria-label="Input told in figures">
			{#each run.result.inputs as one (keyOf(one))}
				<button
					type="button"
					aria-pressed={one === input}
					onclick={() => (desk.selection.inputKey = keyOf(one))}>{inputName(rig, run, one)}</button
				>
			{/each}
		</div>
	{/if}
	<div class="details">
		<div class="column">
			<LevelsTable {input} {label} />
			{#if input.loudspeaker}
				<LoudspeakerTable
					line={input.loudspeaker}
					{levels}
					load_ohm={run.result.sources[0]?.load_ohm}
					{label}
				/>
			{:else}
				{@render curve()}
			{/if}
			<div><MetersTable {rig} result={run.result} /></div>
		</div>
		<div class="column">
			{#if input.loudspeaker}
				{@render curve()}
			{:else}
				<div>
					{#if sum && sum.centre_db < -2}
						<Budget {sum} />
					{:else}
						<h3 class="heading">What arrives on the two legs</h3>
					{/if}
					<p class="balance">
						Really <b>{BALANCE_WORDS[input.balance.verdict]}</b>: hot sees
						<span class="figure">{ohm(input.balance.hot_ohm)}</span>, cold
						<span class="figure">{ohm(input.balance.cold_ohm)}</span>{input.balance.cold_on_screen
							? ', cold is joined to the screen'
							: ''}.
					</p>
				</div>
				{#if input.noise}
					<HissTable {rig} noise={input.noise} crosstalk={input.crosstalk} {label} {levels} />
				{/if}
				{#if input.hum}
					<HumTable {rig} hum={input.hum} {label} {levels} after={then?.hum ?? null} />
				{/if}
			{/if}
		</div>
	</div>
{/if}

<style>
	.details {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr));
		gap: 1.25rem 2.5rem;
		align-items: start;
	}
	.column {
		display: grid;
		gap: 1.25rem;
		min-width: 0;
		overflow-x: auto;
	}
	.which {
		margin-bottom: 1.1rem;
	}
	.balance {
		font-size: 0.875rem;
		margin-top: 0.6rem;
	}
</style>
