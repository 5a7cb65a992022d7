<!-- A lead's length; Enter or leaving the field saves, Escape gives it up. -->
<script lang="ts">
	import { fromMetres, toMetres, typedNumber, type LengthUnit } from '../../domain/format';

	interface Props {
		label: string;
		lengthM: number;
		unit: LengthUnit;
		onset: (lengthM: number) => void;
	}
	let { label, lengthM, unit, onset }: Props = $props();

	const MAX_M = 1000;
	const id = $props.id();
	const saved = $derived(String(Number(fromMetres(lengthM, unit).toFixed(2))));
	let typed = $state<string | null>(null);
	const wrong = $derived(typed !== null && readingOf(typed) === null);

	function readingOf(text: string): number | null {
		const value = typedNumber(text);
		if (!Number.isFinite(value) || text.trim() === '') return null;
		const metres = toMetres(value, unit);
		return metres > 0 && metres <= MAX_M ? metres : null;
	}

	function save(): void {
		if (typed === null) return;
		const metres = readingOf(typed);
		if (metres === null) return;
		const changed = typed.trim() !== saved;
		typed = null;
		if (changed) onset(metres);
	}
</script>

<div class="length">
	<label for={id}>{label}</label>
	<span class="field" class:wrong>
		<input
			{id}
			class="figure"
			inputmode="decimal"
			value={typed ?? saved}
			aria-invalid={wrong}
			aria-describedby={wrong ? `${id}-why` : undefined}
			oninput={(event) => (typed = event.currentTarget.value)}
			onblur={save}
			onkeydown={(event) => {
				if (event.key === 'Enter') save();
				if (event.key === 'Escape') typed = null;
			}}
		/>
		<span class="quiet">{unit}</span>
	</span>
	{#if wrong}<p id="{id}-why" class="why">
			A number above 0 and up to {Math.floor(fromMetres(MAX_M, unit))}
			{unit}.
		</p>{/if}
</div>

<style>
	.length {
		display: grid;
		gap: 0.3rem;
		justify-items: start;
	}
	label {
		font-size: 0.8125rem;
		font-weight: 500;
	}
	.field {
		display: inline-flex;
		align-items: baseline;
		gap: 0.35rem;
		border-bottom: 2px solid var(--line-strong);
		padding: 0.1rem 0.2rem;
	}
	.wrong {
		border-color: var(--stop);
	}
	input {
		width: 5ch;
		background: transparent;
		border: 0;
		padding: 0.15rem 0;
		color: var(--ink);
		text-align: right;
	}
	.why {
		color: var(--stop);
		font-size: 0.8rem;
	}
</style>
