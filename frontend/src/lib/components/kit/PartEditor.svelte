<!-- One part: its name, what people call it, and every figure in it with its source. -->
<script lang="ts">
	import { untrack } from 'svelte';
	import type { Schemas } from '../../api/client';
	import { typedNumber } from '../../domain/format';
	import { figuresOf, withFigure, type PartFigure } from '../../domain/own-part';

	interface Props {
		part: Schemas['Part'];
		onsave: (part: Schemas['Part']) => void;
		oncancel: () => void;
	}
	let { part, onsave, oncancel }: Props = $props();
	// The editor lives as long as one part does.
	let draft = $state.raw(untrack(() => part));
	let filter = $state('');
	let called = $state(untrack(() => (part.called ?? []).join(', ')));

	const figures = $derived(figuresOf(draft));
	const shown = $derived(
		figures.filter((one) => `${one.where} ${one.field}`.toLowerCase().includes(filter.trim().toLowerCase()))
	);
	const MOST = 60;

	function set(figure: PartFigure, which: 'first' | 'second', text: string): void {
		const value = typedNumber(text);
		if (text.trim() === '' || !Number.isFinite(value)) return;
		draft =
			which === 'first'
				? withFigure(draft, figure, value, figure.second)
				: withFigure(draft, figure, figure.first, value);
	}

	const finished = (): Schemas['Part'] => ({
		...draft,
		called: called
			.split(',')
			.map((one) => one.trim())
			.filter(Boolean)
	});
</script>

<form
	class="editor"
	aria-label="Part {draft.name}"
	onsubmit={(event) => {
		event.preventDefault();
		onsave(finished());
	}}
>
	<div class="words">
		<label>
			<span>Name</span>
			<input
				required
				maxlength="120"
				value={draft.name}
				oninput={(event) => (draft = { ...draft, name: event.currentTarget.value })}
			/>
		</label>
		<label>
			<span>Also called, when a run or kit is typed</span>
			<input bind:value={called} placeholder="thin lead, blue lead" />
		</label>
	</div>
	{#if figures.length > 12}
		<label class="filter">
			<span>{figures.length} figures; show those with</span>
			<input bind:value={filter} placeholder="impedance, mic 3, hz…" />
		</label>
	{/if}
	<div class="table">
		<table class="figures">
			<thead>
				<tr><th>Figure</th><th>Value</th><th>Unit</th><th>Source</th></tr>
			</thead>
			<tbody>
				{#each shown.slice(0, MOST) as one (one.path.join('.'))}
					<tr>
						<th scope="row"><span class="quiet">{one.where}</span> {one.field}</th>
						<td>
							<input
								class="figure"
								inputmode="decimal"
								aria-label="{one.where} {one.field}{one.kind === 'spread' ? ', likely' : ''}"
								value={one.first}
								onchange={(event) => set(one, 'first', event.currentTarget.value)}
							/>
							{#if one.second !== null}
								<input
									class="figure"
									inputmode="decimal"
									aria-label="{one.where} {one.field}, worst"
									value={one.second}
									onchange={(event) => set(one, 'second', event.currentTarget.value)}
								/>
							{/if}
						</td>
						<td>{one.unit}</td>
						<td class="source quiet">{one.source}</td>
					</tr>
				{/each}
			</tbody>
		</table>
	</div>
	{#if shown.length > MOST}<p class="quiet">{shown.length - MOST} more; narrow them down above.</p>{/if}
	<div class="buttons">
		<button type="submit" class="btn go">Keep this part</button>
		<button type="button" class="btn preset-tonal" onclick={oncancel}>Leave it</button>
	</div>
</form>

<style>
	.editor {
		display: grid;
		gap: 0.9rem;
		padding: 1rem;
		background: var(--panel);
		border: 1px solid var(--line-strong);
		min-width: 0;
	}
	.words {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(15rem, 1fr));
		gap: 0.9rem;
	}
	label {
		display: grid;
		gap: 0.3rem;
		font-size: 0.8125rem;
		font-weight: 600;
	}
	.filter {
		max-width: 22rem;
	}
	input {
		background: var(--ground);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.35rem 0.55rem;
		min-height: 2rem;
		font-weight: 400;
		min-width: 0;
	}
	.table {
		overflow-x: auto;
		max-height: 26rem;
		overflow-y: auto;
	}
	th {
		text-align: left;
		font-weight: 400;
	}
	thead th {
		font-weight: 600;
	}
	td input {
		width: 7.5rem;
	}
	.source {
		font-size: 0.8125rem;
	}
	.buttons {
		display: flex;
		gap: 0.8rem;
	}
</style>
