<!-- What is built in: lines that runs pass through and nobody takes away. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { length } from '../../domain/format';

	let { rig }: { rig: Schemas['Rig'] } = $props();

	const parts = $derived(new Map((rig.parts ?? []).map((part) => [part.id, part.name])));
	const items = $derived((rig.kit ?? []).filter((item) => item.installed));
	const used = (id: string): number => (rig.runs ?? []).filter((run) => run.pieces?.includes(id)).length;
</script>

<section aria-labelledby="installed-heading">
	<h3 id="installed-heading" class="heading">Built in</h3>
	<ul>
		{#each items as item (item.id)}
			<li>
				<b>{item.tag}</b>
				<span>{parts.get(item.part) ?? item.part}</span>
				<span class="quiet">
					{item.length_m ? length(item.length_m, rig.length_unit ?? 'm') : ''}{used(item.id) > 0
						? `, in ${used(item.id)} ${used(item.id) === 1 ? 'run' : 'runs'}`
						: ''}
				</span>
			</li>
		{:else}
			<li class="quiet">Nothing yet. Wall plates and tie lines are typed at Kit, with “installed” behind.</li>
		{/each}
	</ul>
</section>

<style>
	section {
		display: grid;
		gap: 0.4rem;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 1rem;
		padding: 0.35rem 0;
		border-bottom: 1px solid var(--line);
		font-size: 0.875rem;
	}
	b {
		min-width: 10rem;
	}
</style>
