<!-- A button that asks for a file and hands it over. -->
<script lang="ts">
	interface Props {
		words: string;
		accept: string;
		busy?: boolean;
		onfile: (file: File) => Promise<void>;
	}
	let { words, accept, busy = false, onfile }: Props = $props();

	async function pick(input: HTMLInputElement): Promise<void> {
		const file = input.files?.[0];
		// At once, so that the same file can be picked again while this one is still on its way.
		input.value = '';
		if (file) await onfile(file);
	}
</script>

<label class="btn preset-tonal" class:busy>
	{words}
	<input
		type="file"
		{accept}
		disabled={busy}
		class="sr-only"
		onchange={(event) => void pick(event.currentTarget)}
	/>
</label>

<style>
	label:focus-within {
		outline: 2px solid var(--accent);
		outline-offset: 2px;
	}
	.busy {
		opacity: 0.5;
	}
</style>
