<!-- The selected run in numbers: levels, what is left of the centre, response, what really is balanced. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { ohm } from '../../domain/format';
	import { BALANCE_WORDS } from '../../domain/heard';
	import Budget from './Budget.svelte';
	import Curve from './Curve.svelte';
	import HissTable from './HissTable.svelte';
	import HumTable from './HumTable.svelte';
	import LevelsTable from './LevelsTable.svelte';
	import LoudspeakerTable from './LoudspeakerTable.svelte';

	interface Props {
		rig: Schemas['Rig'];
		run: Schemas['RunAnalysis'];
		after: Schemas['RunAnalysis'] | null;
	}
	let { rig, run, after }: Props = $props();

	const input = $derived(run.result.inputs[0]);
	const levels = $derived(input?.levels.find((one) => one.active));
	const sum = $derived(run.result.mixes[0]?.sum ?? input?.sum);
</script>

{#if input}
	<div class="details">
		<div class="column">
			<LevelsTable {input} />
			{#if input.loudspeaker}
				<LoudspeakerTable
					line={input.loudspeaker}
					{levels}
					load_ohm={run.result.sources[0]?.load_ohm}
					label={input.label}
				/>
			{/if}
			{#if input.response}
				<Curve response={input.response} after={after?.result.inputs[0]?.response ?? null} />
			{/if}
		</div>
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
			{#if input.noise}
				<div class="part">
					<HissTable {rig} noise={input.noise} crosstalk={input.crosstalk} label={input.label} {levels} />
				</div>
			{/if}
			{#if input.hum}
				<div class="part">
					<HumTable
						{rig}
						hum={input.hum}
						label={input.label}
						{levels}
						after={after?.result.inputs[0]?.hum ?? null}
					/>
				</div>
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
	}
	.part {
		margin-top: 1.25rem;
	}
	.balance {
		font-size: 0.875rem;
		margin-top: 0.6rem;
	}
</style>
