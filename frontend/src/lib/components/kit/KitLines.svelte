<!-- Kit in plain words, one kind a line, or a list by file: said back before anything is added. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { readKit, readKitList } from '../../api/queries';
	import { getDesk } from '../../state/desk.svelte';
	import { PlainLines } from '../../state/plain-lines.svelte';
	import PlainField from '../controls/PlainField.svelte';

	let { rigId }: { rigId: string } = $props();
	const desk = getDesk();
	const MOST_TAGS = 8;

	const lines = new PlainLines((text, signal) => readKit(rigId, text, signal));
	const pieces = $derived((lines.reading?.lines ?? []).reduce((sum, { items }) => sum + items.length, 0));
	const wrong = $derived(lines.problems.length);

	async function add(): Promise<void> {
		if (!lines.reading?.edit) return;
		await desk.sync.edit(lines.reading.edit);
		lines.keepProblems();
	}

	async function list(csv: string): Promise<void> {
		const reading = await lines.ask(() => readKitList(rigId, csv));
		// The rows become lines, so that they can be mended here.
		if (reading) lines.text = reading.lines.map(({ line }) => line).join('\n');
	}

	const tagsOf = ({ items }: Schemas['KitLine']): string =>
		items
			.map(({ tag }) => tag)
			.slice(0, MOST_TAGS)
			.join(', ') + (items.length > MOST_TAGS ? ', …' : '');
	const EXAMPLE = 'about six 10 m microphone leads\nD7: passive DI, to borrow';
</script>

<PlainField
	{lines}
	label="Add to this rig's kit"
	placeholder={EXAMPLE}
	button="Add {pieces} {pieces === 1 ? 'piece' : 'pieces'}{wrong > 0 && pieces > 0
		? `, keep ${wrong} to mend`
		: ''}"
	ready={lines.reading?.edit != null}
	onadd={add}
	onfile={list}
>
	{#snippet more(line)}<span class="quiet">{tagsOf(line)}</span>{/snippet}
</PlainField>
