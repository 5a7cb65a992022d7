<!-- Where the trade disagrees, what this house does; and how loud it plays in how quiet a room. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { PASSIVE_Y, SCREENS, houseEdit, lengthSaid, numberSaid } from '../../domain/house';
	import { fromMetres } from '../../domain/format';
	import { getDesk } from '../../state/desk.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();

	const unit = $derived(rig.length_unit ?? 'm');
	const house = $derived(rig.venue.house);
	const limit = $derived(Number(fromMetres(house?.unbalanced_limit_m?.value ?? 7.5, unit).toFixed(1)));

	const say = (...said: Parameters<typeof houseEdit>): void => void desk.edit(houseEdit(...said));
</script>

<section class="house" aria-labelledby="house-heading">
	<h3 id="house-heading" class="heading">House rules of {rig.venue.name}</h3>
	<p class="quiet">
		Where the trade disagrees. They never change a verdict: a run that departs from one says so beside its
		computed figure.
	</p>
	<div class="fields">
		<label class="field">
			<span>Unbalanced leads, at most ({unit})</span>
			<input
				type="number"
				min="0.1"
				step="0.5"
				value={limit}
				onchange={(event) => say('unbalanced_limit_m', lengthSaid(event.currentTarget.value, unit))}
			/>
		</label>
		<label class="field">
			<span>Screens of balanced leads</span>
			<select
				value={house?.screens ?? 'both-ends'}
				onchange={(event) => say('screens', event.currentTarget.value)}
			>
				{#each Object.entries(SCREENS) as [value, words] (value)}<option {value}>{words}</option>{/each}
			</select>
		</label>
		<label class="field">
			<span>Two outputs on one input</span>
			<select
				value={house?.passive_y ?? 'with-resistors'}
				onchange={(event) => say('passive_y', event.currentTarget.value)}
			>
				{#each Object.entries(PASSIVE_Y) as [value, words] (value)}<option {value}>{words}</option>{/each}
			</select>
		</label>
	</div>
	<h3 class="heading">How loud, how quiet</h3>
	<p class="quiet">
		With both, hum is judged against the room itself instead of against the programme alone.
	</p>
	<div class="fields">
		<label class="field">
			<span>Programme at the listener (dB SPL)</span>
			<input
				type="number"
				min="0"
				max="140"
				placeholder="nobody said"
				value={rig.venue.programme_db_spl ?? ''}
				onchange={(event) => say('programme_db_spl', numberSaid(event.currentTarget.value))}
			/>
		</label>
		<label class="field">
			<span>The empty room (dBA)</span>
			<input
				type="number"
				min="-10"
				max="120"
				placeholder="nobody said"
				value={rig.venue.noise_dba ?? ''}
				onchange={(event) => say('noise_dba', numberSaid(event.currentTarget.value))}
			/>
		</label>
	</div>
</section>

<style>
	.house {
		display: grid;
		gap: 0.6rem;
		margin-top: 1.5rem;
	}
	.fields + .heading {
		margin-top: 0.6rem;
	}
</style>
