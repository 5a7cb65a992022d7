<!-- Where the trade disagrees, what this house does; how loud it plays in how quiet a room; weather and radio. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { houseEdit, lengthSaid, numberSaid } from '../../domain/house';
	import { formField } from '../../domain/form-fields';
	import { fromMetres } from '../../domain/format';
	import { saidBands, typedBands } from '../../domain/radio';
	import { getDesk } from '../../state/desk.svelte';
	import FrequencyControl from '../controls/FrequencyControl.svelte';
	import RigField from '../controls/RigField.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();

	const unit = $derived(rig.length_unit ?? 'm');
	const house = $derived(rig.venue.house);
	const limitM = $derived(
		house?.unbalanced_limit_m?.value ?? Number(formField('HouseRules.unbalanced_limit_m').fallback)
	);
	const limit = $derived(Number(fromMetres(limitM, unit).toFixed(1)));

	const CHOICES = [
		'screens',
		'passive_y',
		'power_order',
		'gain',
		'speaker_volume',
		'computer_volume'
	] as const;

	const say = (...said: Parameters<typeof houseEdit>): void => void desk.sync.edit(houseEdit(...said));
</script>

<section class="house" aria-labelledby="house-heading">
	<h3 id="house-heading" class="heading">House rules of {rig.venue.name}</h3>
	<p class="quiet">
		Where the trade disagrees. They never change a verdict: a run that departs from one says so beside its
		computed figure.
	</p>
	<div class="fields">
		<RigField
			of="HouseRules.unbalanced_limit_m"
			value={limit}
			{unit}
			step={0.5}
			onsay={(text) => say('unbalanced_limit_m', lengthSaid(text, unit))}
		/>
		{#each CHOICES as rule (rule)}
			<RigField of="HouseRules.{rule}" value={house?.[rule]} onsay={(choice) => say(rule, choice)} />
		{/each}
	</div>
	<h3 class="heading">How loud, how quiet</h3>
	<p class="quiet">
		With both, hum is judged against the room itself instead of against the programme alone.
	</p>
	<div class="fields">
		<RigField
			of="Venue.programme_db_spl"
			value={rig.venue.programme_db_spl}
			onsay={(text) => say('programme_db_spl', numberSaid(text))}
		/>
		<RigField
			of="Venue.noise_dba"
			value={rig.venue.noise_dba}
			onsay={(text) => say('noise_dba', numberSaid(text))}
		/>
	</div>
	<h3 class="heading">Weather and radio</h3>
	<p class="quiet">
		In the open air covers are packed, and hook-up begins with what rain would do. Radio microphones are
		computed to keep clear of what is taken here.
	</p>
	<div class="fields">
		<RigField of="Venue.weather" value={rig.venue.weather} onsay={(choice) => say('weather', choice)} />
		<FrequencyControl
			label="Frequencies taken here, MHz"
			value={rig.venue.taken_mhz ?? []}
			read={typedBands}
			say={saidBands}
			example="470-478 television; 606.7 the next room"
			mend="Bands and carriers in MHz, from 20 to 8000, with who uses them; a semicolon between them: “470-478 television; 606.7 the next room”."
			wide
			onset={(value) => say('taken_mhz', value)}
		/>
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
