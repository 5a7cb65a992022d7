<!-- One thing that happened. -->
<script lang="ts">
	import { addressOf } from '../../domain/address';
	import { clock } from '../../domain/format';
	import Photos from '../check/Photos.svelte';
	import Tape from '../marks/Tape.svelte';
	import type { LogLine } from '../../domain/log';

	let { line, whole }: { line: LogLine; whole: boolean } = $props();
	const where = $derived(
		line.rig !== null && line.run !== null
			? addressOf({ station: 'runs', rig: line.rig, run: line.run })
			: null
	);
	const isWrong = $derived(line.answer === 'wrong');
</script>

<li class:corrected={line.corrected}>
	<time class="figure" datetime={line.at}>{clock(line.at)}</time>
	<span class="kind quiet">{line.kind}</span>
	<span class="what">
		{#if line.run_name && where}
			<a href="#{where}"><Tape name={line.run_name} size="small" /></a>
		{:else if line.run_name}
			<Tape name={line.run_name} size="small" />
		{/if}
		<span class="words" class:wrong={isWrong && !line.corrected}>{line.words}</span>
		{#each line.things as thing (thing)}<b class="thing">{thing}</b>{/each}
		{#if line.rig !== null}<Photos rig={line.rig} photos={line.photos} />{/if}
		{#if line.corrected}<span class="quiet">(corrected)</span>{/if}
	</span>
	<span class="who quiet">{line.person}{whole && line.rig_name ? `, ${line.rig_name}` : ''}</span>
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 4.5rem 4.5rem minmax(0, 1fr) auto;
		gap: 0.2rem 0.8rem;
		align-items: center;
		padding: 0.3rem 0;
		border-bottom: 1px solid var(--line);
	}
	.what {
		display: flex;
		flex-wrap: wrap;
		gap: 0.2rem 0.6rem;
		align-items: center;
	}
	.what a {
		display: inline-flex;
	}
	.wrong {
		color: var(--stop);
	}
	.corrected .words {
		text-decoration: line-through;
		color: var(--dim);
	}
	@media (max-width: 720px) {
		li {
			grid-template-columns: 4.5rem minmax(0, 1fr);
		}
		.kind {
			display: none;
		}
		.who {
			grid-column: 2;
		}
	}
</style>
