<!-- What keeps the cancellation from being perfect: each unknown's share of the centre, likely and worst. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { signedDb } from '../../domain/format';
	import Figure from '../figures/Figure.svelte';
	import { RESIDUE_WORDS } from '../../domain/heard';

	let { sum }: { sum: Schemas['Sum'] } = $props();

	const WEAKEST_DB = -110;
	const width = (level: number): number => Math.max(1, 100 * (1 - level / WEAKEST_DB));
	const counted = $derived(sum.residues.filter((residue) => residue.worst_db > WEAKEST_DB));
</script>

<table class="figures">
	<caption class="heading">What is left of the centre, and why</caption>
	<thead>
		<tr><th scope="col">let through by</th><th scope="col">likely</th><th scope="col">worst</th></tr>
	</thead>
	<tbody>
		{#each counted as residue, index (index)}
			<tr>
				<th scope="row">
					{RESIDUE_WORDS[residue.code]}
					<span class="bar"
						><svg aria-hidden="true" viewBox="0 0 100 4" preserveAspectRatio="none"
							><rect width={width(residue.worst_db)} height="4" class="worst" /><rect
								width={width(residue.likely_db)}
								height="4"
								class="likely"
							/></svg
						></span
					>
				</th>
				<td class="figure">{signedDb(residue.likely_db)}</td>
				<td class="figure quiet">{signedDb(residue.worst_db)}</td>
			</tr>
		{/each}
		<tr class="total">
			<th scope="row">together</th>
			<td><Figure of="sum.centre_db" scope={{ sum }} text={signedDb(sum.centre_db)} /></td>
			<td class="figure quiet">{signedDb(sum.centre_worst_db)}</td>
		</tr>
	</tbody>
</table>
<p class="quiet note">
	Relative to one side alone. Likely adds them as powers, worst as magnitudes; perfectly matched parts would
	leave
	{sum.centre_ideal_floored ? 'nothing' : signedDb(sum.centre_ideal_db)}.
</p>

<style>
	thead th {
		font-weight: 400;
		color: var(--dim);
		text-align: right;
	}
	thead th:first-child,
	tbody th {
		text-align: left;
		font-weight: 400;
	}
	td {
		text-align: right;
		white-space: nowrap;
		vertical-align: top;
		padding-left: 1rem;
	}
	.bar svg {
		display: block;
		width: 100%;
		height: 4px;
		margin-top: 2px;
	}
	.worst {
		fill: var(--line);
	}
	.likely {
		fill: var(--accent);
	}
	.note {
		font-size: 0.8rem;
		margin-top: 0.4rem;
	}
</style>
