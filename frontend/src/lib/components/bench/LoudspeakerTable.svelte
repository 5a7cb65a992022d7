<!-- An amplified run's end: what the lead costs, what the loudspeaker gets and bears. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { db, ohm, watt } from '../../domain/format';
	import Figure from '../figures/Figure.svelte';

	interface Props {
		line: Schemas['LoudspeakerLine'];
		levels: Schemas['Levels'] | undefined;
		load_ohm: number | undefined;
		label: string;
	}
	let { line, levels, load_ohm, label }: Props = $props();

	const scope = $derived({ loudspeaker: line, levels });
</script>

<table class="figures">
	<caption class="heading">Power at {label}</caption>
	<tbody>
		<tr>
			<th scope="row">lost after the amplifier</th>
			<td><Figure of="loudspeaker.loss_db" {scope} text={db(line.loss_db)} /></td>
		</tr>
		<tr>
			<th scope="row">gets at most</th>
			<td><Figure of="loudspeaker.peak_w" {scope} text={watt(line.peak_w)} /></td>
		</tr>
		<tr>
			<th scope="row">bears</th>
			<td><Figure of="loudspeaker.rated_w" {scope} text={watt(line.rated_w)} /></td>
		</tr>
		{#if load_ohm !== undefined}
			<tr>
				<th scope="row">all that hangs on the amplifier</th>
				<td class="figure">{ohm(load_ohm)}</td>
			</tr>
		{/if}
	</tbody>
</table>
