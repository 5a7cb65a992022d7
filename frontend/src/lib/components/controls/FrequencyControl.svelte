<!-- Frequencies as somebody types them; Enter or leaving the field saves, Escape gives it up. -->
<script lang="ts" generics="Value">
	interface Props {
		label: string;
		value: readonly Value[];
		/** Null where what was typed is not what it should be. */
		read: (text: string) => Value[] | null;
		say: (value: readonly Value[]) => string;
		example: string;
		/** How to mend what could not be read. */
		mend: string;
		wide?: boolean;
		onset: (value: Value[]) => void;
	}
	let { label, value, read, say, example, mend, wide = false, onset }: Props = $props();
	const saved = $derived(say(value));
	let typed = $state<string | null>(null);
	const wrong = $derived(typed !== null && read(typed) === null);

	function save(): void {
		const values = typed === null ? null : read(typed);
		if (values === null) return;
		typed = null;
		if (say(values) !== saved) onset(values);
	}
</script>

<label class="field" class:wrong class:wide>
	<span>{label}</span>
	<input
		placeholder={example}
		value={typed ?? saved}
		aria-invalid={wrong}
		oninput={(event) => (typed = event.currentTarget.value)}
		onblur={save}
		onkeydown={(event) => {
			if (event.key === 'Enter') save();
			else if (event.key === 'Escape') typed = null;
		}}
	/>
	{#if wrong}<small role="alert">{mend}</small>{/if}
</label>

<style>
	input {
		width: 10rem;
	}
	.wide input {
		width: min(34rem, 100%);
	}
	.wrong input {
		border-color: var(--stop);
	}
</style>
