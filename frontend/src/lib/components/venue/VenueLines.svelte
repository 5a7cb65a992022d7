<!-- The building in plain words, one thing a line, said back before anything is added. -->
<script lang="ts">
	import { readVenue } from '../../api/venues';
	import { getDesk } from '../../state/desk.svelte';
	import { PlainLines } from '../../state/plain-lines.svelte';
	import PlainField from '../controls/PlainField.svelte';

	let { rigId }: { rigId: string } = $props();
	const desk = getDesk();

	const lines = new PlainLines((text, signal) => readVenue(rigId, text, signal));
	const known = $derived(lines.reading !== null && !lines.reading.edit && lines.problems.length === 0);

	async function add(): Promise<void> {
		if (!lines.reading?.edit) return;
		await desk.sync.edit(lines.reading.edit);
		lines.keepProblems();
	}
	const EXAMPLE =
		'circuit 2, 16 A, stage: outlets 5-8; strip stage left\noutlet 5: 0.4 V against outlet 1\nW2: 20 m tie line from stage left to the booth rack';
</script>

<PlainField
	{lines}
	label="Boards, circuits, strips, outlets, what was measured, and what is built in"
	placeholder={EXAMPLE}
	button="Add to the venue"
	ready={lines.reading?.edit != null}
	onadd={add}
>
	{#if known}<p class="quiet">All of this is known already.</p>{/if}
</PlainField>
