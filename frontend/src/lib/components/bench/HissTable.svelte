<!-- Hiss at an input: its own, of what is joined to it, and how far under the programme; what comes across. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { db, dbu, signedDb } from '../../domain/format';
	import { nameOf } from '../../domain/names';
	import Figure from '../figures/Figure.svelte';

	interface Props {
		rig: Schemas['Rig'];
		noise: Schemas['Noise'];
		crosstalk: Schemas['Crosstalk'] | null;
		levels: Schemas['Levels'] | undefined;
		label: string;
	}
	let { rig, noise, crosstalk, levels, label }: Props = $props();

	const scope = $derived({ noise, levels });
</script>

<table class="figures">
	<caption class="heading">Hiss at {label}, 20 Hz to 20 kHz</caption>
	<tbody>
		<tr><th scope="row">the input’s own</th><td class="figure">{dbu(noise.receiver_dbu)}</td></tr>
		{#if noise.thermal_dbu !== null}
			<tr>
				<th scope="row">thermal noise of what is joined to it</th>
				<td class="figure">{dbu(noise.thermal_dbu)}</td>
			</tr>
		{/if}
		<tr class="total"
			><th scope="row">together</th><td
				><Figure of="noise.total_dbu" {scope} text={dbu(noise.total_dbu)} /></td
			></tr
		>
		{#if noise.below_programme_db !== null}
			<tr>
				<th scope="row">under the programme</th>
				<td><Figure of="noise.below_programme_db" {scope} text={db(noise.below_programme_db)} /></td>
			</tr>
		{/if}
		{#if crosstalk}
			<tr>
				<th scope="row">{nameOf(rig, crosstalk.gear)} comes across, against the programme</th>
				<td class="figure">
					{signedDb(crosstalk.at_1k_db)}
					<span class="quiet">{signedDb(crosstalk.at_10k_db)} at 10 kHz</span>
				</td>
			</tr>
		{/if}
	</tbody>
</table>

<style>
	td .quiet {
		display: block;
	}
	.total > * {
		border-top: 1px solid var(--line-strong);
	}
</style>
