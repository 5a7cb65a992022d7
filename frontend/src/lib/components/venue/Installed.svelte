<!-- What is built in: lines that runs pass through and nobody takes away. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { length } from '../../domain/format';
	import { set } from '../../domain/ops';
	import { getDesk } from '../../state/desk.svelte';

	let { rig }: { rig: Schemas['Rig'] } = $props();
	const desk = getDesk();

	const parts = $derived(new Map((rig.parts ?? []).map((part) => [part.id, part.name])));
	const items = $derived((rig.kit ?? []).filter((item) => item.installed));
	const say = (item: (typeof items)[number], remark: string): void =>
		void desk.sync.edit({
			label: `Ends of ${item.tag}`,
			ops: [set('kit', item.id, 'remark', remark)]
		});
	const used = (id: string): number => (rig.runs ?? []).filter((run) => run.pieces?.includes(id)).length;
</script>

<section aria-labelledby="installed-heading">
	<h3 id="installed-heading" class="heading">Built in</h3>
	<ul>
		{#each items as item (item.id)}
			<li>
				<b>{item.tag}</b>
				<span>{parts.get(item.part) ?? item.part}</span>
				<label>
					<span class="sr-only">What is at the ends of {item.tag}</span>
					<input
						maxlength="600"
						placeholder="from … to …"
						disabled={!desk.may('plan')}
						value={item.remark ?? ''}
						onchange={(event) => say(item, event.currentTarget.value.trim())}
					/>
				</label>
				<span class="quiet">
					{item.length_m ? length(item.length_m, rig.length_unit ?? 'm') : ''}{used(item.id) > 0
						? `, in ${used(item.id)} ${used(item.id) === 1 ? 'run' : 'runs'}`
						: ''}
				</span>
			</li>
		{:else}
			<li class="quiet">
				Nothing yet. Type it above: “W2: 20 m tie line from stage left to the booth rack”.
			</li>
		{/each}
	</ul>
</section>

<style>
	section {
		display: grid;
		gap: 0.4rem;
	}
	li {
		display: grid;
		grid-template-columns: 10rem minmax(0, 18rem) minmax(8rem, 22rem) 1fr;
		align-items: center;
		gap: 0.2rem 1rem;
		padding: 0.35rem 0;
		border-bottom: 1px solid var(--line);
		font-size: 0.875rem;
	}
	li.quiet {
		display: block;
	}
	input {
		width: 100%;
		background: transparent;
		color: var(--ink);
		border: 1px solid var(--line);
		padding: 0.1rem 0.5rem;
		min-height: 1.75rem;
	}
	@media (max-width: 720px) {
		li {
			grid-template-columns: minmax(0, 1fr) auto;
		}
	}
</style>
