<!-- A field of the rig as its schema describes it: a choice in words, a number with its unit and limits, or text. -->
<script lang="ts">
	import { formField, type FieldName } from '../../domain/form-fields';
	import { getDesk } from '../../state/desk.svelte';
	import { showSaved } from './saved-value';

	interface Props {
		of: FieldName;
		value: string | number | null | undefined;
		/** Of a length that is shown in another unit than the file's. */
		unit?: string;
		label?: string;
		step?: number;
		onsay: (value: string) => void;
	}
	let { of, value, unit, label, step, onsay }: Props = $props();

	const desk = getDesk();
	const field = $derived(formField(of));
	const unitShown = $derived(unit ?? field.unit);
	const isNumber = $derived(field.unit !== undefined);
	const shown = $derived(value ?? field.fallback ?? '');
	const saved = $derived(showSaved(String(shown), desk.sync.queued === 0));

	/** A name cannot be empty: the field goes back to what it was. */
	function say(input: HTMLInputElement): void {
		const text = input.value.trim();
		if (field.needed && !text) input.value = String(shown);
		else if (text !== String(shown)) onsay(text);
	}
</script>

<label class="field">
	<span>{label ?? field.label}{unitShown ? ` (${unitShown})` : ''}</span>
	{#if field.words}
		<select value={String(shown)} {@attach saved} onchange={(event) => onsay(event.currentTarget.value)}>
			{#each Object.entries(field.words) as [choice, words] (choice)}<option value={choice}>{words}</option
				>{/each}
		</select>
	{:else}
		<input
			type={isNumber ? 'number' : 'text'}
			min={field.minimum}
			max={field.maximum}
			{step}
			maxlength={field.longest}
			required={field.needed}
			placeholder={isNumber && field.fallback === undefined ? 'not stated' : undefined}
			value={shown}
			{@attach saved}
			onchange={(event) => say(event.currentTarget)}
		/>
	{/if}
</label>
