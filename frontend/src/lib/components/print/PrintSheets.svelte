<!-- Choosing what is printed of a rig, and making the file. -->
<script lang="ts">
	import { Download, Printer } from '@lucide/svelte';
	import { untrack } from 'svelte';
	import { createQuery } from '@tanstack/svelte-query';
	import { inputsFile, labelsFile, makePdf, solderedQuery, wiringFile } from '../../api/print';
	import { choiceOf, LABEL_SIZES, SHEETS, toggled, type SheetName } from '../../domain/print';
	import { Asking } from '../../state/asking.svelte';
	import { getDesk } from '../../state/desk.svelte';

	const KEPT = 'ruvak-print';
	/** `first`: the sheet of this station. */
	let { rigId, first, spareM = 0 }: { rigId: string; first: SheetName; spareM?: number } = $props();
	const desk = getDesk();
	const asking = new Asking();
	let open = $state(false);
	let made = $state(false);
	let choice = $state(
		choiceOf(
			localStorage.getItem(KEPT),
			untrack(() => [first])
		)
	);
	const soldered = createQuery(() => ({
		...solderedQuery(rigId, desk.sync.state?.version ?? ''),
		enabled: open && choice.sheets.includes('wiring')
	}));
	const sheets = $derived(SHEETS.filter(({ id }) => id !== 'pull' || !desk.byLink));
	const onSheet = $derived(LABEL_SIZES.find(({ id }) => id === choice.labels)?.count ?? 1);

	async function make(): Promise<void> {
		made = false;
		localStorage.setItem(KEPT, JSON.stringify(choice));
		const answered = await asking.ask(() => makePdf(rigId, choice, spareM));
		if (!answered) return;
		const address = URL.createObjectURL(answered.result);
		const link = document.createElement('a');
		link.href = address;
		link.download = `${rigId}.pdf`;
		link.click();
		URL.revokeObjectURL(address);
		made = true;
	}
</script>

<div class="print no-print">
	<button type="button" class="btn preset-tonal" aria-expanded={open} onclick={() => (open = !open)}
		><Printer size={16} aria-hidden="true" /> Print</button
	>
	{#if open}
		<form
			class="panel"
			aria-label="Print"
			onsubmit={(event) => {
				event.preventDefault();
				void make();
			}}
		>
			<fieldset>
				<legend>Sheets</legend>
				{#each sheets as sheet (sheet.id)}
					<label
						><input
							type="checkbox"
							checked={choice.sheets.includes(sheet.id)}
							onchange={() => (choice.sheets = toggled(choice.sheets, sheet.id))}
						/>
						<span><b>{sheet.name}</b> <small class="quiet">{sheet.words}</small></span></label
					>
				{/each}
			</fieldset>
			<div class="fields">
				<label class="field"
					><span>Paper</span>
					<select bind:value={choice.paper}
						><option value="a4">A4</option><option value="letter">Letter</option></select
					></label
				>
				{#if choice.sheets.includes('labels')}
					<label class="field"
						><span>Labels on a sheet</span>
						<select bind:value={choice.labels}>
							{#each LABEL_SIZES as size (size.id)}<option value={size.id}>{size.words}</option>{/each}
						</select></label
					>
					<label class="field"
						><span>Already used on the first</span>
						<input type="number" min="0" max={onSheet - 1} step="1" bind:value={choice.skip} /></label
					>
				{/if}
			</div>
			<div class="fields">
				<button class="btn go" disabled={asking.busy || choice.sheets.length === 0}>Make the PDF</button>
				<a class="btn preset-tonal" href={labelsFile(rigId)} download
					><Download size={16} aria-hidden="true" /> Labels, CSV</a
				>
				<a class="btn preset-tonal" href={inputsFile(rigId)} download
					><Download size={16} aria-hidden="true" /> Input list, CSV</a
				>
			</div>
			{#if choice.sheets.includes('wiring') && soldered.data}
				<div class="drawings">
					<span class="quiet">Drawings by themselves, SVG:</span>
					{#each soldered.data as part (part.id)}
						<a href={wiringFile(rigId, part.id)} download>{part.name}</a>
					{:else}
						<span class="quiet">nothing in this rig is soldered from a drawing.</span>
					{/each}
				</div>
			{/if}
			{#if asking.refused}<p class="refused" role="alert">{asking.refused}</p>{/if}
			{#if made}<p class="quiet" role="status">The PDF is among this device's downloads.</p>{/if}
		</form>
	{/if}
</div>

<style>
	.print {
		position: relative;
	}
	.panel {
		position: absolute;
		right: 0;
		top: calc(100% + 0.4rem);
		z-index: 7;
		width: min(27rem, calc(100vw - 2rem));
		display: grid;
		gap: 0.9rem;
		padding: 1rem;
		background: var(--panel);
		border: 1px solid var(--line);
		border-radius: 6px;
		box-shadow: 0 8px 24px rgb(0 0 0 / 0.35);
	}
	fieldset {
		display: grid;
		gap: 0.3rem;
	}
	legend {
		padding-bottom: 0.3rem;
		font-weight: 600;
	}
	fieldset label {
		display: flex;
		gap: 0.6rem;
		align-items: baseline;
		min-height: 1.75rem;
	}
	.fields {
		display: flex;
		flex-wrap: wrap;
		gap: 0.6rem;
		align-items: end;
	}
	.drawings {
		display: flex;
		flex-wrap: wrap;
		gap: 0.3rem 0.9rem;
		align-items: baseline;
		max-height: 9rem;
		overflow: auto;
	}
	.drawings a {
		padding: 0.25rem 0;
		text-decoration: underline;
	}
	.fields input {
		width: 5rem;
	}
</style>
