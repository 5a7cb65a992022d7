<!-- A run as it is wired. Geometry comes from domain/strip.ts; here it only gets its ink. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { heard } from '../../domain/heard';
	import { arrivesWords, keyOf } from '../../domain/inputs';
	import { length, type LengthUnit } from '../../domain/format';
	import { inRows } from '../../domain/label-rows';
	import { CONTACT_RADIUS, layOut } from '../../domain/strip';
	import { INK, type PieceBox } from '../../domain/strip-types';
	import Ends from './Ends.svelte';
	import Glyph from './Glyph.svelte';

	interface Props {
		run: Schemas['RunAnalysis'];
		unit: LengthUnit;
		/** Looked at, not applied: everything is drawn as a ghost, new pieces marked. */
		ghost?: boolean;
		kept?: ReadonlySet<string>;
	}
	let { run, unit, ghost = false, kept = new Set<string>() }: Props = $props();

	let width = $state(620);
	const narrow = $derived(width < 480);
	const layout = $derived(
		layOut(run.drawing, { width, top: 92, left: narrow ? 27 : 34, right: narrow ? 96 : 104 })
	);
	const outcomes = $derived(new Map(run.result.inputs.map((one) => [keyOf(one), heard(one.channels)])));
	/** Where several inputs listen, what each gets. */
	const figures = $derived(
		new Map(
			run.result.data || run.result.inputs.length < 2
				? []
				: run.result.inputs.map((one) => [keyOf(one), arrivesWords(one)])
		)
	);
	const KIND_WORDS = { lead: 'lead', adapter: 'adapter', box: 'box', gear: '' } as const;
	/** A label says which, a name says what: "lead M31", but "XLR lead 1". */
	const isLabel = (name: string): boolean => !/[a-z]{3}/i.test(name);
	const pieceWords = (piece: PieceBox): string =>
		`${narrow || piece.installed || !isLabel(piece.name) ? '' : KIND_WORDS[piece.kind] + ' '}${piece.name}` +
		(piece.lengthM === null ? '' : `, ${length(piece.lengthM, unit)}`);
	const labels = $derived.by(() => {
		const placed = inRows(
			layout.pieces.map((piece) => ({
				x: (piece.left + piece.right) / 2,
				y: piece.top - 25,
				words: pieceWords(piece)
			}))
		);
		return new Map(layout.pieces.map((piece, index) => [piece.owner, placed[index]]));
	});
	const bad = $derived(run.findings[0]?.grade === 'stop');
	const summary = $derived(
		`${run.drawing.pieces.map((piece) => piece.name).join(', then ')}. ${run.findings.map((one) => one.sentence).join(' ')}`
	);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="strip" class:ghost bind:clientWidth={width} tabindex={layout.width > width ? 0 : undefined}>
	<svg width={layout.width} height={layout.height} role="img" aria-label={summary} data-run={run.run}>
		<defs>
			<pattern id="braid-{run.run}" width="6" height="6" patternUnits="userSpaceOnUse">
				<path d="M0 6 6 0M-1 1 1-1M5 7 7 5" stroke="var(--braid)" stroke-width="1.2" />
			</pattern>
		</defs>
		{#each layout.pieces as piece (piece.owner)}
			<g class:new={ghost && !kept.has(piece.owner)}>
				{#each piece.braids as braid, index (index)}
					<rect {...braid} rx="5" fill="url(#braid-{run.run})" class="braid" />
				{/each}
				{#if labels.get(piece.owner)}
					{@const label = labels.get(piece.owner)}
					<text class="piece" x={label?.x} y={label?.y} text-anchor="middle">{label?.words}</text>
				{/if}
			</g>
		{/each}
		{#each layout.capsules as capsule, index (index)}
			<rect
				class="capsule"
				x={capsule.x}
				y={capsule.y}
				width={capsule.width}
				height={capsule.height}
				rx="9"
			/>
		{/each}
		{#each layout.capsules as capsule, index (index)}
			<text
				class="form"
				x={capsule.x + capsule.width / 2}
				y={capsule.y + capsule.height + 14}
				text-anchor="middle">{capsule.label}</text
			>
		{/each}
		{#each layout.lines as line, index (index)}
			<path class="wire {line.look} {line.kind}" style:--wire={INK[line.look]} d={line.path} />
		{/each}
		{#each layout.components as component, index (index)}
			<Glyph {component} />
		{/each}
		{#each layout.contacts as contact (contact.id)}
			<g class="contact" style:--wire={INK[contact.look]} class:open={contact.open}>
				<circle cx={contact.x} cy={contact.y} r={CONTACT_RADIUS} data-contact={contact.id} />
				<text x={contact.x} y={contact.y + 3.6} text-anchor="middle">{contact.name}</text>
			</g>
		{/each}
		{#each layout.letters as letter, index (index)}
			<text class="letter" style:--wire={INK[letter.look]} x={letter.x} y={letter.y + 4} text-anchor="middle"
				>{letter.words}</text
			>
		{/each}
		<Ends ends={layout.ends} ears={layout.ears} width={layout.width} {narrow} {outcomes} {figures} {bad} />
	</svg>
</div>

<style>
	.strip {
		min-width: 0;
		overflow-x: auto;
	}
	svg {
		display: block;
	}
	.wire {
		fill: none;
		stroke-width: 2.6;
		stroke-linecap: round;
	}
	.lead-in {
		stroke-width: 2;
	}
	.wire {
		stroke: var(--wire);
	}
	.wire.right {
		stroke-dasharray: 9 4;
	}
	.braid {
		stroke: var(--line);
		stroke-width: 1;
	}
	.capsule {
		fill: var(--panel);
		stroke: var(--line-strong);
		stroke-width: 1.2;
	}
	.contact circle {
		fill: var(--ground);
		stroke: var(--wire);
		stroke-width: 2;
	}
	.contact.open circle {
		stroke-dasharray: 2.5 2.5;
	}
	.contact text {
		font-size: 10px;
		font-weight: 600;
		fill: var(--ink);
	}
	.piece {
		font-size: 12.5px;
		fill: var(--ink);
	}
	.form {
		font-size: 11px;
		fill: var(--dim);
	}
	.letter {
		font-family: 'Saira Variable', sans-serif;
		font-size: 13px;
		font-weight: 700;
		fill: var(--wire);
		paint-order: stroke;
		stroke: var(--panel);
		stroke-width: 5px;
	}
	.ghost .wire,
	.ghost .capsule {
		opacity: 0.9;
	}
	.ghost .new .piece {
		fill: var(--accent);
		font-weight: 650;
	}
	.ghost .new .braid {
		stroke: var(--accent);
		stroke-dasharray: 5 4;
	}
	.ghost .capsule {
		stroke-dasharray: 4 3;
	}
</style>
