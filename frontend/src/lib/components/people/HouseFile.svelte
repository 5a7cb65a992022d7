<!-- The whole house as one archive, out and in. -->
<script lang="ts">
	import { useQueryClient } from '@tanstack/svelte-query';
	import type { Schemas } from '../../api/client';
	import { importHouse } from '../../api/house';
	import { Asking } from '../../state/asking.svelte';
	import FileButton from '../controls/FileButton.svelte';
	import Part from './Part.svelte';

	const queries = useQueryClient();
	const asking = new Asking();
	let made = $state.raw<Schemas['Imported'] | null>(null);

	async function bring(file: File): Promise<void> {
		made = (await asking.ask(() => importHouse(file)))?.result ?? null;
		await queries.invalidateQueries();
	}
</script>

<Part
	heading="The house as a file"
	words="People, venues, cupboard, dates and every rig in one archive of JSON files with tables beside them; no passphrases, no history. Imported, only what is not here yet is added."
	refused={asking.refused}
>
	<div class="in-a-row">
		<a class="btn preset-tonal" href="/api/house" download>Export the house</a>
		<FileButton words="Import a house" accept=".zip,application/zip" busy={asking.busy} onfile={bring} />
	</div>
	{#if made}
		<div role="status">
			<p>
				Added: {made.rigs} rigs, {made.occasions} dates, {made.things} things, {made.venues} venues, {made.people}
				people.{made.people > 0 ? ' Give each of them a link to choose a passphrase.' : ''}
			</p>
			{#each made.said as sentence (sentence)}<p>{sentence}</p>{/each}
		</div>
	{/if}
</Part>
