<!-- Who did what to the things of the cupboard, the newest first. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { cupboardChangesQuery } from '../../api/house';
	import { clock, day } from '../../domain/format';

	let { version }: { version: number } = $props();
	let open = $state(false);
	const changes = createQuery(() => ({ ...cupboardChangesQuery(version), enabled: open }));
</script>

<details bind:open>
	<summary class="heading">Changes of the cupboard, the last hundred</summary>
	<ul class="lines">
		{#each changes.data ?? [] as change, index (index)}
			<li>
				<span class="figure">{change.name}</span>
				<span>{change.words}</span>
				<span class="quiet">{change.person}, {day(change.made_at)}, {clock(change.made_at)}</span>
			</li>
		{:else}
			<li class="quiet">{changes.isPending ? 'Fetching…' : 'None yet.'}</li>
		{/each}
	</ul>
</details>
