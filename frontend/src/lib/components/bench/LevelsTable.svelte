<!-- Arriving level against what each position of the input's switch wants and bears. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { db, dbu } from '../../domain/format';
	import Figure from '../figures/Figure.svelte';

	const ROWS = [
		['arrives', 'arriving_dbu', dbu],
		['wants', 'nominal_dbu', dbu],
		['gain wanted', 'gap_db', db],
		['control adds', 'boost_db', db],
		['loudest peaks', 'peak_dbu', dbu],
		['clips at', 'clip_dbu', dbu],
		['headroom', 'headroom_db', db]
	] as const;

	/** A loudspeaker has no control, and its watts are told beside. */
	const OF_LOUDSPEAKERS = ['arriving_dbu', 'peak_dbu', 'clip_dbu', 'headroom_db'];

	let { input, label }: { input: Schemas['InputResult']; label: string } = $props();
	/** Of a loudspeaker's taps the one it is on: what the others would do is its watts. */
	const levels = $derived(input.loudspeaker ? input.levels.filter((one) => one.active) : input.levels);
	const rows = $derived(
		input.loudspeaker ? ROWS.filter(([, field]) => OF_LOUDSPEAKERS.includes(field)) : ROWS
	);

	function word(level: Schemas['Levels']): string {
		if (level.headroom_db < 0) return `clips by ${db(-level.headroom_db)}`;
		if (level.short_db > 0 && !input.loudspeaker) return `${db(level.short_db)} too quiet`;
		return 'fits';
	}
</script>

<table class="figures">
	<caption class="heading">Level at {label}</caption>
	<thead>
		<tr>
			<td></td>
			{#each levels as level (level.when)}
				<th scope="col" class:active={level.active}>{level.when ?? 'input'}{level.active ? ', now' : ''}</th>
			{/each}
		</tr>
	</thead>
	<tbody>
		{#each rows as [name, field, unit] (name)}
			<tr>
				<th scope="row">{name}</th>
				{#each levels as level (level.when)}
					<td class:active={level.active}>
						<Figure of="levels.{field}" scope={{ levels: level }} text={unit(level[field])} />
					</td>
				{/each}
			</tr>
		{/each}
		<tr class="total">
			<th scope="row">so it</th>
			{#each levels as level (level.when)}
				<td class:active={level.active}>{word(level)}</td>
			{/each}
		</tr>
	</tbody>
</table>

<style>
	th {
		text-align: left;
		font-weight: 400;
	}
	thead th,
	td {
		text-align: right;
		color: var(--dim);
		padding-left: 1rem;
		white-space: nowrap;
	}
	.active {
		color: var(--ink);
	}
	thead .active {
		font-weight: 600;
	}
</style>
