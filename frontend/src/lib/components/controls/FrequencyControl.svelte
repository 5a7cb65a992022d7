<!-- Frequencies of a receiver's transmitters; Enter or leaving the field saves, Escape gives it up. -->
<script lang="ts">
	import { saidMhz, typedMhz } from '../../domain/radio';

	let { label, mhz, onset }: { label: string; mhz: readonly number[]; onset: (mhz: number[]) => void } =
		$props();
	const id = $props.id();
	const saved = $derived(saidMhz(mhz));
	let typed = $state<string | null>(null);
	const wrong = $derived(typed !== null && typedMhz(typed) === null);

	function save(): void {
		const values = typed === null ? null : typedMhz(typed);
		if (values === null) return;
		typed = null;
		if (saidMhz(values) !== saved) onset(values);
	}
</script>

<div class="field" class:wrong>
	<label for={id}>{label}</label>
	<input
		{id}
		inputmode="decimal"
		placeholder="606.5 607.1"
		value={typed ?? saved}
		aria-invalid={wrong}
		oninput={(event) => (typed = event.currentTarget.value)}
		onblur={save}
		onkeydown={(event) => {
			if (event.key === 'Enter') save();
			else if (event.key === 'Escape') typed = null;
		}}
	/>
	{#if wrong}<small role="alert">In MHz, from 20 to 8000, with spaces between them.</small>{/if}
</div>

<style>
	input {
		width: 10rem;
	}
	.wrong input {
		border-color: var(--stop);
	}
</style>
