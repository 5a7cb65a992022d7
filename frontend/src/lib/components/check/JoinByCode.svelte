<!-- A code that lets another phone answer this check, and nothing else, for the evening. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { makeLink } from '../../api/people';
	import { Asking } from '../../state/asking.svelte';
	import ShownLink from '../people/ShownLink.svelte';

	let { rig, name }: { rig: string; name: string } = $props();
	const HOURS = 12;
	const asking = new Asking();
	let made = $state<Schemas['MadeLink'] | null>(null);

	async function make(): Promise<void> {
		const link = { name: 'Phone on stage', gives: 'record', hours: HOURS } as const;
		made = (await asking.ask(() => makeLink(rig, link)))?.result ?? null;
	}
</script>

{#if made}
	<div class="code">
		<ShownLink link={made} words="Scan to answer the check of {name}" onclose={() => (made = null)} />
	</div>
{:else}
	<button type="button" class="btn preset-tonal no-print" disabled={asking.busy} onclick={() => void make()}
		>Add a phone</button
	>
{/if}
{#if asking.refused}<p role="alert">{asking.refused}</p>{/if}

<style>
	.code {
		flex-basis: 100%;
	}
</style>
