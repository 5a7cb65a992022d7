<!-- The selected run in numbers: levels, what is left of the centre, response, what really is balanced. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { ohm } from '../../domain/format';
	import { BALANCE_WORDS } from '../../domain/heard';
	import Budget from './Budget.svelte';
	import Curve from './Curve.svelte';
	import LevelsTable from './LevelsTable.svelte';

	let { run, after }: { run: Schemas['RunAnalysis']; after: Schemas['RunAnalysis'] | null } = $props();

	const input = $derived(run.result.inputs[0]);
	const sum = $derived(run.result.mixes[0]?.sum ?? input?.sum);
</script>

{#if input}
	<div class="details">
		<div class="column">
			<LevelsTable {input} />
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
	.balance {
		font-size: 0.875rem;
		margin-top: 0.6rem;
	}
</style>
