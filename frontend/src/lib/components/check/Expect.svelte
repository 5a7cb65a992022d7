<!-- What to do for a run, and what arrives where when it is right. -->
<script lang="ts">
	import type { Card } from '../../domain/check';
	import { signed } from '../../domain/format';

	/** `meter`: whether who reads this sees one; on stage nobody does. */
	let { card, meter = true }: { card: Card; meter?: boolean } = $props();
	const headroom = (db: number | null): string => {
		if (db === null) return '';
		return db < 0
			? `, its loudest is ${(-db).toFixed(0)} dB more than the input bears`
			: `, clips ${db.toFixed(0)} dB above its loudest`;
	};
</script>

<dl>
	<dt>Make a sound at</dt>
	<dd>{card.source}</dd>
	{#if card.pieces.length > 0}
		<dt>By way of</dt>
		<dd>{card.pieces.join(', ')}</dd>
	{/if}
	<dt>Listen at</dt>
	<dd>{card.into}</dd>
	{#if card.phantom}
		<dt>Phantom</dt>
		<dd>{card.phantom}</dd>
	{/if}
	{#each meter ? card.expected : [] as at (at.input)}
		<dt>{card.expected.length > 1 ? at.input : 'Meter'}</dt>
		<dd>
			{#if at.arriving_dbu === null}
				nothing measurable arrives
			{:else}
				<b>{at.meter.words}</b>
				<span class="quiet">({signed(at.arriving_dbu)} dBu arrives{headroom(at.headroom_db)})</span
				>{#if at.short_db > 0}; its gain ends {at.short_db.toFixed(0)} dB too soon{/if}
				<details>
					<summary class="quiet">The other school</summary>
					{at.meter.other}
				</details>
			{/if}
		</dd>
	{/each}
	{#if card.levels.length > 0}
		<dt>Levels</dt>
		<dd>
			<ul>
				{#each card.levels as words (words)}<li>{words}</li>{/each}
			</ul>
		</dd>
	{/if}
</dl>
<p class="quiet">
	Nobody there to play it? A test source at the same plug stands in; what the meter reads is then set by its
	level.
</p>
{#each card.warnings as warning (warning)}
	<p class="warning">Computed: {warning}</p>
{/each}

<style>
	dl {
		display: grid;
		grid-template-columns: auto minmax(0, 1fr);
		gap: 0.35rem 0.9rem;
	}
	dt {
		color: var(--dim);
	}
	.warning {
		color: var(--fix);
	}
</style>
