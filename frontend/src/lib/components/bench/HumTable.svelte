<!-- Hum and buzz at an input: how far under the programme, by cause, by tone. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { db, dbu, hertz, number } from '../../domain/format';
	import Figure from '../figures/Figure.svelte';
	import { MECHANISMS, assumedOutlets, bars, causeWords } from '../../domain/hum';

	interface Props {
		rig: Schemas['Rig'];
		hum: Schemas['Hum'];
		label: string;
		levels: Schemas['Levels'] | undefined;
		after?: Schemas['Hum'] | null;
	}
	let { rig, hum, label, levels, after = null }: Props = $props();
	const scope = $derived({ hum, levels });

	const FLOOR_DBU = -140;
	const HEIGHT = 74;
	const top = $derived(Math.max(-60, Math.ceil(hum.worst_dbu / 20) * 20));
	const tones = $derived(bars(hum, FLOOR_DBU, top));
	const told = $derived(hum.causes.filter((cause) => cause.worst_dbu > FLOOR_DBU));
	/** Those that matter: within 30 dB of the largest. */
	const ways = $derived(
		(hum.mechanisms ?? []).filter(
			(way) =>
				way.worst_dbu > FLOOR_DBU &&
				way.weighted_worst_dbu > (hum.mechanisms?.[0]?.weighted_worst_dbu ?? 0) - 30
		)
	);
	const assumed = $derived(assumedOutlets(hum));
	const width = (level: number): number =>
		Math.min(100, Math.max(1, (100 * (level - FLOOR_DBU)) / (top - FLOOR_DBU)));
	const many = $derived(tones.length > 9);
	/** All of a few tones, every other of many, so that no word runs into the next. */
	const worded = (index: number): boolean => !many || index % 3 === 0;
</script>

<div class="hum">
	<table class="figures">
		<caption class="heading">Hum and buzz at {label}</caption>
		<thead>
			<tr><th scope="col">from</th><th scope="col">likely</th><th scope="col">worst</th></tr>
		</thead>
		<tbody>
			{#each told as cause (cause.code + cause.owner)}
				<tr>
					<th scope="row">
						{causeWords(rig, cause)}
						<svg class="bar" aria-hidden="true" viewBox="0 0 100 4" preserveAspectRatio="none"
							><rect width={width(cause.worst_dbu)} height="4" class="worst" /><rect
								width={width(cause.likely_dbu)}
								height="4"
								class="likely"
							/></svg
						>
					</th>
					<td class="figure">{dbu(cause.likely_dbu)}</td>
					<td class="figure quiet">{dbu(cause.worst_dbu)}</td>
				</tr>
			{:else}
				<tr><th scope="row" colspan="3" class="quiet">nothing above {dbu(FLOOR_DBU)}</th></tr>
			{/each}
			<tr class="total">
				<th scope="row">together</th>
				<td><Figure of="hum.likely_dbu" {scope} text={dbu(hum.likely_dbu)} /></td>
				<td class="figure quiet">{dbu(hum.worst_dbu)}</td>
			</tr>
			{#if after}
				<tr>
					<th scope="row">with what is previewed</th>
					<td class="figure">{dbu(after.likely_dbu)}</td>
					<td class="figure quiet">{dbu(after.worst_dbu)}</td>
				</tr>
			{/if}
		</tbody>
	</table>
	{#if ways.length > 0}
		<table class="figures">
			<caption class="heading">How it gets in</caption>
			<tbody>
				{#each ways as way (way.code)}
					<tr>
						<th scope="row">
							{MECHANISMS[way.code].words}
							<span class="quiet cure">{MECHANISMS[way.code].cure}</span>
						</th>
						<td class="figure">{dbu(way.likely_dbu)}</td>
						<td class="figure quiet">{dbu(way.worst_dbu)}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	{/if}
	{#if told.length > 0}
		<svg
			class="tones"
			viewBox="0 0 300 {HEIGHT + 18}"
			role="img"
			aria-label="Tones of the hum, likely and worst"
		>
			{#each tones as tone, index (tone.hz)}
				{@const x = 300 * tone.x + 4}
				{@const wide = Math.max(3, 300 * tone.width - 8)}
				<rect class="worst" {x} width={wide} y={HEIGHT * (1 - tone.worst)} height={HEIGHT * tone.worst} />
				<rect class="likely" {x} width={wide} y={HEIGHT * (1 - tone.likely)} height={HEIGHT * tone.likely} />
				{#if worded(index)}
					<text x={x + wide / 2} y={HEIGHT + 14} text-anchor="middle">{hertz(tone.hz)}</text>
				{/if}
			{/each}
			<path class="foot" d="M0 {HEIGHT}H300" />
		</svg>
	{/if}
	<p class="quiet note">
		{#if hum.below_programme_db !== null}
			As loud as it sounds (A-weighted): {dbu(hum.weighted_dbu)},
			<b><Figure of="hum.below_programme_db" {scope} text={db(hum.below_programme_db)} /></b>
			under the programme, at worst {number(hum.below_programme_worst_db ?? 0)}.
		{/if}
		{#if assumed > 0}
			Rests on {assumed === 1 ? 'an outlet' : `${assumed} outlets`} nobody has named: which strip or circuit a plug
			is in decides most of it.
		{/if}
		Never open a mains earth to stop hum.
	</p>
</div>

<style>
	.hum {
		display: grid;
		gap: 0.5rem;
	}
	thead th {
		color: var(--dim);
	}
	thead th + th {
		text-align: right;
		padding-left: 0.9rem;
	}
	.bar {
		display: block;
		width: 100%;
		height: 4px;
	}
	.total > * {
		border-top: 1px solid var(--line-strong);
	}
	.worst {
		fill: var(--line);
	}
	.likely {
		fill: var(--accent);
	}
	.tones {
		width: 100%;
		max-width: 26rem;
	}
	.tones text {
		font-size: 9.5px;
		fill: var(--dim);
	}
	.foot {
		stroke: var(--line-strong);
	}
	.cure {
		display: block;
		font-size: 0.8125rem;
	}
	.note {
		font-size: 0.8125rem;
	}
</style>
