<!-- What can be changed on the run itself, each under the piece it belongs to. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { setField } from '../../domain/ops';
	import { getDesk } from '../../state/desk.svelte';
	import Only from '../frame/Only.svelte';
	import ChoiceControl from './ChoiceControl.svelte';
	import FrequencyControl from './FrequencyControl.svelte';
	import LengthControl from './LengthControl.svelte';
	import LevelControl from './LevelControl.svelte';
	import PlugControl from './PlugControl.svelte';
	import SwitchControl from './SwitchControl.svelte';
	import { isEarthed, plugEdit } from '../../domain/outlets';
	import { saidMhz, typedMhz } from '../../domain/radio';
	import { valueOf } from '../../domain/settings';

	type Setting = Schemas['Part']['settings'][number];
	const BY_RADIO: ReadonlySet<string> = new Set(['radio-receiver', 'in-ear-transmitter']);

	let { rig, run }: { rig: Schemas['Rig']; run: Schemas['RunAnalysis'] } = $props();
	const desk = getDesk();

	const parts = $derived(new Map((rig.parts ?? []).map((part) => [part.id, part])));
	/** Each once: what a run passes through stands at both of its ends. */
	const gear = $derived(
		[
			...new Set(run.drawing.pieces.filter((piece) => piece.kind === 'gear').map((piece) => piece.owner))
		].flatMap((owner) => (rig.gear ?? []).filter((one) => one.id === owner))
	);
	const leads = $derived(
		run.drawing.pieces.flatMap((piece) =>
			piece.length_m !== null && !piece.installed
				? [{ id: piece.owner, name: piece.name, lengthM: piece.length_m }]
				: []
		)
	);

	/** Only what belongs to this run's sockets: not every channel's switch of a large desk. */
	const settingsOf = (device: Schemas['Gear']): Setting[] =>
		(parts.get(device.part)?.settings ?? []).filter((setting) =>
			run.controls.some((one) => one.gear === device.id && one.setting === setting.id)
		);

	/** With the device's name where another one on this run has a control of that name too. */
	const labelOf = (device: Schemas['Gear'], setting: Setting): string =>
		gear.some((one) => one !== device && settingsOf(one).some((other) => other.label === setting.label))
			? `${device.name}: ${setting.label}`
			: setting.label;

	function set(device: Schemas['Gear'], setting: Setting, value: string | number | boolean) {
		const words =
			typeof value === 'boolean' ? (value ? 'on' : 'off') : typeof value === 'number' ? `${value} dB` : value;
		void desk.sync.edit({
			label: `${device.name}: ${setting.label} ${words}`,
			ops: [{ ...setField('gear', device.id, 'settings', setting.id), value }]
		});
	}
</script>

{#snippet device(one: Schemas['Gear'])}
	{#each settingsOf(one) as setting (setting.id)}
		{@const value = valueOf(one, setting)}
		<div class="control {setting.type}">
			{#if setting.type === 'level'}
				<LevelControl
					label={labelOf(one, setting)}
					value={Number(value)}
					min={setting.min_db}
					max={setting.max_db}
					disabled={!desk.may('record')}
					settled={desk.sync.queued === 0}
					onset={(next) => set(one, setting, next)}
				/>
			{:else if setting.type === 'choice'}
				<ChoiceControl
					label={labelOf(one, setting)}
					value={String(value)}
					options={setting.options}
					onset={(next) => set(one, setting, next)}
				/>
			{:else}
				<SwitchControl
					label={labelOf(one, setting)}
					value={value === true}
					onset={(next) => set(one, setting, next)}
				/>
			{/if}
		</div>
	{/each}
	{#if BY_RADIO.has(parts.get(one.part)?.role ?? '')}
		<FrequencyControl
			label="{one.name}: frequencies, MHz"
			value={one.radio_mhz ?? []}
			read={typedMhz}
			say={saidMhz}
			example="606.5 607.1"
			mend="In MHz, from 20 to 8000, with spaces between them."
			onset={(value) =>
				void desk.sync.edit({
					label: `${one.name}: ${saidMhz(value) || 'no frequency'} MHz`,
					ops: [{ ...setField('gear', one.id, 'radio_mhz'), value }]
				})}
		/>
	{/if}
	{#if isEarthed(parts.get(one.part), one)}
		<PlugControl {rig} gear={one} onset={(choice) => void desk.sync.edit(plugEdit(rig, one, choice))} />
	{/if}
{/snippet}

<div class="in-place no-print">
	<div class="group">
		{#if gear[0]}<Only may="record">{@render device(gear[0])}</Only>{/if}
	</div>
	<div class="group middle">
		<Only may="plan">
			{#each leads as lead (lead.id)}
				<LengthControl
					label="Length of {lead.name}"
					lengthM={lead.lengthM}
					unit={rig.length_unit ?? 'm'}
					onset={(length_m) =>
						void desk.sync.edit({
							label: `${lead.name}: ${Number(length_m.toFixed(2))} m`,
							ops: [{ ...setField('kit', lead.id, 'length_m'), value: length_m }]
						})}
				/>
			{/each}
		</Only>
	</div>
	<div class="group last">
		<Only may="record"
			>{#each gear.slice(1) as one (one.id)}{@render device(one)}{/each}</Only
		>
	</div>
</div>

<style>
	.in-place {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 0.75rem 2rem;
		font-size: 0.875rem;
		min-width: 0;
	}
	.group {
		display: flex;
		flex-wrap: wrap;
		gap: 0.75rem 1.5rem;
		align-items: flex-start;
		max-width: 100%;
	}
	.level {
		width: 9.5rem;
	}
	.choice {
		max-width: 100%;
	}
</style>
