<!-- A stretch of a run: how long its way is, and the leads that go there, drawn to one scale. -->
<script lang="ts">
	import { addressOf } from '../../domain/address';
	import { length, type LengthUnit } from '../../domain/format';
	import { reachM, type PullLine } from '../../domain/pull';
	import Tape from '../marks/Tape.svelte';

	let { line, scale, unit }: { line: PullLine; scale: number; unit: LengthUnit } = $props();
	const PERCENT = 100;
	const share = (metres: number): string => `${(metres / scale) * PERCENT}%`;
	const reach = $derived(reachM(line));
	const suspect = $derived(line.leads.some((lead) => lead.suspect));
</script>

<li class:short={line.leads.length === 0}>
	<span class="figure number">{line.number}</span>
	<a class="run" href="#{addressOf({ station: 'runs', rig: line.rig, run: line.run })}"
		><Tape name={line.name} size="small" /></a
	>
	<span class="tags">
		{#each line.leads as lead, at (at)}{#if at > 0}<span class="quiet">+</span>
			{/if}<b class="figure">{lead.tag}</b>
			<span class="quiet">{length(lead.length_m, unit)}, {lead.store}</span>{/each}
		{#if line.get_m !== null}
			<b>get {length(line.get_m, unit)}</b> <span class="quiet">{line.part}</span>
		{/if}
		{#if suspect}<span class="suspect">suspect: test it first</span>{/if}
		{#if line.changed && line.leads.length > 0}<span class="fresh">new</span>{/if}
	</span>
	<span class="way" aria-hidden="true">
		{#each line.leads as lead, at (at)}
			<i class:doubtful={lead.suspect} style:width={share(lead.length_m)}></i>
		{/each}
		{#if line.get_m !== null}<i class="missing" style:width={share(line.get_m)}></i>{/if}
		<s style:left={share(line.need_m)}></s>
	</span>
	<span class="figure over"
		>{length(line.need_m, unit)}{line.leads.length > 0 && reach > line.need_m + 0.05
			? `, +${length(reach - line.need_m, unit)}`
			: ''}</span
	>
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 2rem minmax(0, 10rem) minmax(0, 21rem) minmax(6rem, 1fr) 8.5rem;
		gap: 0.2rem 0.9rem;
		align-items: center;
		min-height: 2.1rem;
		border-bottom: 1px solid var(--line);
	}
	.number {
		text-align: right;
		color: var(--dim);
	}
	.run {
		overflow: hidden;
		display: flex;
		align-items: center;
	}
	.tags {
		display: flex;
		flex-wrap: wrap;
		gap: 0 0.45rem;
		align-items: baseline;
		font-size: 0.9375rem;
	}
	.short b {
		color: var(--fix);
	}
	.suspect {
		color: var(--watch);
	}
	.fresh {
		font-size: 0.75rem;
		border: 1px solid var(--line-strong);
		padding: 0 0.3rem;
		color: var(--dim);
	}
	/* The way ends at the tick; what lies beyond it is coiled up. */
	.way {
		position: relative;
		display: flex;
		height: 0.6rem;
		border-left: 2px solid var(--line-strong);
	}
	.way i {
		background: var(--wire-screen);
		height: 100%;
		border-right: 2px solid var(--ground);
	}
	.way i.doubtful {
		background: repeating-linear-gradient(90deg, var(--watch) 0 6px, transparent 6px 9px);
	}
	.way i.missing {
		background: none;
		border: 1.5px dashed var(--fix);
	}
	.way s {
		position: absolute;
		top: -0.3rem;
		bottom: -0.3rem;
		border-left: 2px solid var(--accent);
	}
	.over {
		text-align: right;
		font-size: 0.8125rem;
		color: var(--dim);
	}
	@media (max-width: 720px) {
		li {
			grid-template-columns: 1.6rem minmax(0, 1fr) auto;
			padding: 0.35rem 0;
		}
		.tags {
			grid-column: 2 / -1;
			font-size: 1.05rem;
		}
		.way {
			grid-column: 2 / -1;
		}
		.over {
			grid-row: 1;
			grid-column: 3;
		}
	}
</style>
