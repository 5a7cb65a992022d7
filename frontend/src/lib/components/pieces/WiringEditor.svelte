<!-- A piece opened: its contacts on both sides, what joins them, and the run solved with every change. -->
<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import { createQuery } from '@tanstack/svelte-query';
	import type { Schemas } from '../../api/client';
	import { contactsQuery, previewEdit } from '../../api/queries';
	import { areJoined, joinsOf, toggled, wiringEdit } from '../../domain/wiring';
	import { boardOf } from '../../domain/wiring-board';
	import { getDesk } from '../../state/desk.svelte';
	import GradeMark from '../marks/GradeMark.svelte';

	interface Props {
		open: boolean;
		rigId: string;
		runId: string;
		item: Schemas['KitItem'];
		part: Schemas['Part'];
	}
	let { open = $bindable(false), rigId, runId, item, part }: Props = $props();
	const desk = getDesk();
	let wired = $state.raw<Schemas['Part'] | null>(null);
	let first = $state<string | null>(null);
	let finding = $state<Schemas['Finding'] | null>(null);
	const now = $derived(wired ?? part);
	const contacts = createQuery(() => contactsQuery());
	const board = $derived(boardOf(now, contacts.data ?? {}));
	const spot = (point: string) => board.spots.get(point);
	const changed = $derived(
		wired !== null && JSON.stringify(joinsOf(wired)) !== JSON.stringify(joinsOf(part))
	);

	$effect(() => {
		if (!open) {
			wired = first = finding = null;
		}
	});

	async function press(point: string): Promise<void> {
		if (first === null || first === point) {
			first = first === point ? null : point;
			return;
		}
		wired = toggled(now, first, point);
		first = null;
		const preview = await previewEdit(rigId, wiringEdit(item, part, wired));
		finding = preview.analysis.runs.find((run) => run.run === runId)?.findings[0] ?? null;
	}

	async function save(): Promise<void> {
		if (!wired) return;
		const edit = wiringEdit(item, part, wired);
		open = false;
		await desk.sync.edit(edit);
	}
</script>

<Dialog {open} onOpenChange={(details) => (open = details.open)}>
	<Portal>
		<Dialog.Backdrop class="keys-backdrop" />
		<Dialog.Positioner class="keys-place">
			<Dialog.Content class="wiring-box">
				<Dialog.Title class="keys-title">Wiring of {item.tag}</Dialog.Title>
				<p class="quiet">
					{part.name}. Choose one contact, then another: they are joined, or cut where they were. This piece
					alone changes.
				</p>
				<svg width={board.width} height={board.height} role="group" aria-label="Contacts of {item.tag}">
					{#each board.connectors as connector (connector.id)}
						<text class="label" x={connector.x} y={connector.y} text-anchor={connector.anchor}
							>{connector.label}</text
						>
					{/each}
					{#each board.lines as line, index (index)}
						<path class="wire {line.kind}" d={line.path} />
					{/each}
					{#each board.points as point (point.id)}
						<g
							class="contact"
							class:first={first === point.id}
							role="button"
							tabindex="0"
							aria-pressed={first === point.id}
							aria-label="{point.label}{first && first !== point.id
								? areJoined(now, first, point.id)
									? ', cut'
									: ', join'
								: ''}"
							data-point={point.id}
							onclick={() => void press(point.id)}
							onkeydown={(event) => {
								if (event.key !== 'Enter' && event.key !== ' ') return;
								event.preventDefault();
								void press(point.id);
							}}
						>
							<circle cx={spot(point.id)?.x} cy={spot(point.id)?.y} r="12" />
							<text
								aria-hidden="true"
								x={spot(point.id)?.x}
								y={(spot(point.id)?.y ?? 0) + 4}
								text-anchor="middle">{point.name}</text
							>
						</g>
					{/each}
				</svg>
				{#if finding}
					<p class="finding" aria-live="polite"><GradeMark grade={finding.grade} /> {finding.sentence}</p>
				{/if}
				<div class="buttons">
					<button type="button" class="btn go" disabled={!changed} onclick={() => void save()}
						>Keep this wiring</button
					>
					<Dialog.CloseTrigger class="btn preset-tonal">Leave it as it was</Dialog.CloseTrigger>
				</div>
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>

<style>
	:global(.wiring-box) {
		background: var(--raised);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		box-shadow: var(--shadow);
		padding: 1.2rem 1.4rem;
		display: grid;
		gap: 0.8rem;
		max-width: min(34rem, 100%);
		max-height: 92dvh;
		overflow: auto;
	}
	.label {
		font-size: 12.5px;
		fill: var(--dim);
	}
	.wire {
		fill: none;
		stroke: var(--wire-left);
		stroke-width: 2.6;
	}
	.screen {
		stroke: var(--wire-screen);
	}
	.wire.wire-link {
		stroke: var(--wire-cold);
	}
	.contact {
		cursor: pointer;
		outline: none;
	}
	.contact circle {
		fill: var(--ground);
		stroke: var(--line-strong);
		stroke-width: 2;
	}
	.contact:hover circle,
	.contact:focus-visible circle {
		stroke: var(--accent);
	}
	.contact:focus-visible circle {
		stroke-width: 3.5;
	}
	.contact.first circle {
		fill: var(--accent);
	}
	.contact.first text {
		fill: var(--accent-ink);
	}
	.contact text {
		font-size: 11px;
		font-weight: 600;
		fill: var(--ink);
		pointer-events: none;
	}
	.finding {
		display: flex;
		gap: 0.6rem;
		align-items: baseline;
	}
	.buttons {
		display: flex;
		gap: 0.8rem;
	}
</style>
