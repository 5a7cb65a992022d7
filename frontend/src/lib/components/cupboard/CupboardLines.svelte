<!-- The cupboard in plain words, one kind a line, or a list by file: said back before anything is added. -->
<script lang="ts">
	import { addCupboardList, addToCupboard, readCupboard } from '../../api/house';
	import { PlainLines } from '../../state/plain-lines.svelte';
	import PlainField from '../controls/PlainField.svelte';

	let { onchange }: { onchange: () => Promise<void> } = $props();

	const lines = new PlainLines(readCupboard);
	const things = $derived(lines.reading?.things ?? 0);
	const wrong = $derived(lines.problems.length);

	const button = $derived.by(() => {
		const counted = `Add ${things} ${things === 1 ? 'thing' : 'things'}`;
		if (things === 0) return 'Add';
		return wrong > 0 ? `${counted}, keep ${wrong} ${wrong === 1 ? 'line' : 'lines'} to mend` : counted;
	});

	async function add(): Promise<void> {
		const text = lines.text;
		const added = await lines.ask(() => addToCupboard(text));
		if (!added) return;
		lines.keepProblems();
		await onchange();
	}

	async function list(csv: string): Promise<void> {
		const added = await lines.ask(() => addCupboardList(csv));
		if (!added) return;
		lines.keepProblems();
		await onchange();
	}
	const EXAMPLE =
		'Van:\nM31-M36: 10 m mic leads\nabout six 5 m jack leads, suspect: old plugs\nDesk: digital mixer, 32 inputs';
</script>

<PlainField
	{lines}
	label="Add to the cupboard"
	placeholder={EXAMPLE}
	{button}
	ready={things > 0}
	onadd={add}
	onfile={list}
/>
