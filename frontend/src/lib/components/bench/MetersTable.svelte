<!-- What meters would read on this run: a clamp round each lead, a voltmeter on each floating case. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { ampere, volt } from '../../domain/format';
	import { nameOf } from '../../domain/names';

	let { rig, result }: { rig: Schemas['Rig']; result: Schemas['RunResult'] } = $props();

	/** What the smallest clamp meters show, and what is felt by nobody. */
	const LEAST_A = 10e-6;
	const LEAST_V = 0.1;
	const leads = $derived((result.lead_currents ?? []).filter((one) => one.worst_a >= LEAST_A));
	const cases = $derived((result.case_voltages ?? []).filter((one) => one.worst_v >= LEAST_V));
</script>

{#if leads.length + cases.length > 0}
	<table class="figures">
		<caption class="heading">What meters would read</caption>
		<thead><tr><th scope="col">where</th><th scope="col">likely</th><th scope="col">worst</th></tr></thead>
		<tbody>
			{#each leads as one (one.item)}
				<tr>
					<th scope="row">clamp round {nameOf(rig, one.item)}</th>
					<td class="figure">{ampere(one.likely_a)}</td>
					<td class="figure quiet">{ampere(one.worst_a)}</td>
				</tr>
			{/each}
			{#each cases as one (one.gear)}
				<tr>
					<th scope="row">
						case of {nameOf(rig, one.gear)} to earth, 10 MΩ meter
						<span class="quiet sub">through somebody who touches both</span>
					</th>
					<td class="figure">{volt(one.likely_v)} <span class="sub">{ampere(one.touch_likely_a)}</span></td>
					<td class="figure quiet"
						>{volt(one.worst_v)} <span class="sub">{ampere(one.touch_worst_a)}</span></td
					>
				</tr>
			{/each}
		</tbody>
	</table>
	{#if cases.length > 0}
		<p class="quiet note">
			A two-pin case that tingles is its mains filter. Above 0.5 mA, or if it stings: unplug it and have it
			tested by a licensed person.
		</p>
	{/if}
{/if}

<style>
	thead th {
		color: var(--dim);
	}
	thead th + th {
		text-align: right;
		padding-left: 0.9rem;
	}
	.sub {
		display: block;
		font-size: 0.8125rem;
	}
	.note {
		font-size: 0.8125rem;
		margin-top: 0.4rem;
	}
</style>
