<!-- A data line: what it is made for, and what its leads and its end send back of every edge. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { length, number, ohm } from '../../domain/format';
	import { nameOf } from '../../domain/names';
	import Figure from '../figures/Figure.svelte';

	interface Props {
		rig: Schemas['Rig'];
		line: Schemas['DataLine'];
	}
	let { rig, line }: Props = $props();

	const percent = (share: number): string => `${number(share)} %`;
	const unit = $derived(rig.length_unit ?? 'm');
</script>

<table class="figures data">
	<caption class="heading"
		>{line.matched ? 'The line, and what comes back of every edge' : 'The line'}</caption
	>
	<tbody>
		{#if line.matched}
			<tr>
				<th scope="row">made for</th>
				<td class="figure">{ohm(line.wave_ohm)}</td>
				<td></td>
			</tr>
		{/if}
		<tr>
			<th scope="row">its length</th>
			<td class="figure">{length(line.length_m, unit)}</td>
			<td class="figure quiet">at most {length(line.limit_m, unit)}</td>
		</tr>
		{#each line.leads as lead (lead.owner)}
			<tr>
				<th scope="row">{nameOf(rig, lead.owner)}</th>
				<td class="figure">{ohm(lead.ohm)}</td>
				<td class="figure">{percent(lead.reflected_percent)}</td>
			</tr>
		{/each}
		{#if line.matched}
			<tr class="total">
				<th scope="row">its end, {line.receivers === 1 ? 'one device' : `${line.receivers} devices`}</th>
				<td class="figure">{ohm(line.end_ohm)}</td>
				<td
					><Figure
						of="data.end_reflected_percent"
						scope={{ data: line }}
						text={percent(line.end_reflected_percent)}
					/></td
				>
			</tr>
		{/if}
	</tbody>
</table>
<p class="quiet note">
	Data is either understood or not: level, hum and hiss say nothing about it. From {line.source}.
</p>

<style>
	.data {
		max-width: 34rem;
	}
	td {
		text-align: right;
		padding-left: 1rem;
		white-space: nowrap;
	}
	.note {
		font-size: 0.8rem;
		margin-top: 0.4rem;
		max-width: 34rem;
	}
</style>
