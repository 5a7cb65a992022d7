<!-- A field for plain lines with what was understood below it, a button that adds it, and a list by file. -->
<script
	lang="ts"
	generics="Reading extends { lines: { line: string; words: string; problem: string | null }[] }"
>
	import type { Snippet } from 'svelte';
	import FileButton from './FileButton.svelte';
	import type { PlainLines } from '../../state/plain-lines.svelte';

	interface Props {
		lines: PlainLines<Reading>;
		label: string;
		placeholder: string;
		/** What the button says; it does nothing while this is empty. */
		button: string;
		ready: boolean;
		onadd: () => Promise<void>;
		/** A list by file, as text. */
		onfile?: (csv: string) => Promise<void>;
		/** What stands behind a line that was understood. */
		more?: Snippet<[Reading['lines'][number]]>;
		children?: Snippet;
	}
	let { lines, label, placeholder, button, ready, onadd, onfile, more, children }: Props = $props();
	const id = $props.id();
	let adding = $state(false);

	async function add(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (!ready || adding) return;
		adding = true;
		await onadd();
		adding = false;
	}

	async function pick(file: File): Promise<void> {
		if (onfile) await onfile(await file.text());
	}
</script>

<form class="no-print" onsubmit={(event) => void add(event)}>
	<label for={id} class="heading">{label}</label>
	<textarea
		{id}
		rows={Math.min(8, Math.max(2, (lines.text || placeholder).split('\n').length))}
		spellcheck="false"
		{placeholder}
		value={lines.text}
		oninput={(event) => lines.write(event.currentTarget.value)}></textarea>
	<div class="said" aria-live="polite">
		{#if lines.trouble}<p class="problem">{lines.trouble}</p>{/if}
		{#each lines.reading?.lines ?? [] as line, index (index)}
			{#if line.problem}
				<p class="problem"><span class="quiet">{line.line}</span> {line.problem}</p>
			{:else}
				<p><b>{line.words}</b> {@render more?.(line)}</p>
			{/if}
		{/each}
		{@render children?.()}
	</div>
	<div class="buttons">
		<button type="submit" class="btn go" disabled={!ready || adding}>{button}</button>
		{#if onfile}
			<FileButton words="From a CSV list" accept=".csv,.txt,.tsv,text/csv,text/plain" onfile={pick} />
		{/if}
	</div>
</form>

<style>
	form {
		display: grid;
		gap: 0.6rem;
	}
	textarea {
		width: 100%;
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.6rem 0.7rem;
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 0.875rem;
	}
	.said {
		display: grid;
		gap: 0.3rem;
		font-size: 0.875rem;
		max-height: 22rem;
		overflow-y: auto;
	}
	.said:empty {
		display: none;
	}
	.problem {
		border-left: 3px solid var(--fix);
		padding-left: 0.6rem;
	}
	.buttons {
		display: flex;
		gap: 0.8rem;
		flex-wrap: wrap;
	}
</style>
