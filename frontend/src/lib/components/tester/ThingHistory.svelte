<!-- What happened to a thing of the cupboard: tests, notes, changes, the latest first. -->
<script lang="ts">
	import { createQuery } from '@tanstack/svelte-query';
	import { thingHistoryQuery } from '../../api/lead-tests';
	import { dayOf } from '../../domain/occasions';
	import { clock } from '../../domain/format';

	let { id }: { id: string } = $props();
	const MOST = 8;
	const history = createQuery(() => thingHistoryQuery(id));
	const lines = $derived(history.data ?? []);
	const tests = $derived(lines.filter(({ kind }) => kind === 'test').length);
</script>

{#if lines.length > 0}
	<details>
		<summary class="quiet"
			>History: {lines.length}
			{lines.length === 1 ? 'entry' : 'entries'}{tests > 0
				? `, ${tests} ${tests === 1 ? 'test' : 'tests'}`
				: ''}</summary
		>
		<ol>
			{#each lines.slice(0, MOST) as line (line.id)}
				<li>
					<time class="figure" datetime={line.at}>{dayOf(line.at)}, {clock(line.at)}</time>
					<span>{line.words}</span>
					<span class="quiet">{line.person}{line.rig_name ? `, ${line.rig_name}` : ''}</span>
				</li>
			{/each}
		</ol>
	</details>
{/if}

<style>
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 0.8rem;
		font-size: 0.875rem;
		padding: 0.15rem 0;
	}
</style>
