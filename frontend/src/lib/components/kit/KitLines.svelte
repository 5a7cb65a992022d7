<!-- Kit in plain words, one kind a line, or a list by file: said back before anything is added. -->
<script lang="ts">
	import { Trouble, type Schemas } from '../../api/client';
	import { readKit, readKitList } from '../../api/queries';
	import { getDesk } from '../../state/desk.svelte';

	let { rigId }: { rigId: string } = $props();
	const desk = getDesk();
	const PAUSE_MS = 120;

	let text = $state('');
	let reading = $state<Schemas['KitReading'] | null>(null);
	let trouble = $state('');
	let asking: AbortController | null = null;
	let timer: ReturnType<typeof setTimeout> | undefined;

	const wrong = $derived((reading?.lines ?? []).filter((one) => one.problem));
	const pieces = $derived((reading?.lines ?? []).reduce((sum, one) => sum + one.items.length, 0));

	function write(next: string): void {
		text = next;
		clearTimeout(timer);
		asking?.abort();
		if (!next.trim()) {
			reading = null;
			trouble = '';
			return;
		}
		timer = setTimeout(() => void ask((signal) => readKit(rigId, next, signal)), PAUSE_MS);
	}

	async function ask(send: (signal: AbortSignal) => Promise<Schemas['KitReading']>): Promise<void> {
		const mine = (asking = new AbortController());
		try {
			const answer = await send(mine.signal);
			if (mine.signal.aborted) return;
			reading = answer;
			trouble = '';
		} catch (reason) {
			if (mine.signal.aborted) return;
			if (!(reason instanceof Trouble)) throw reason;
			reading = null;
			trouble = reason.problem.faults[0]?.sentence ?? reason.message;
		}
	}

	async function add(): Promise<void> {
		if (!reading?.edit) return;
		const left = wrong.map((one) => one.line).join('\n');
		await desk.sync.edit(reading.edit);
		// What was not understood stays to be mended.
		write(left);
	}

	async function pick(input: HTMLInputElement): Promise<void> {
		const file = input.files?.[0];
		if (!file) return;
		const csv = await file.text();
		await ask(() => readKitList(rigId, csv));
		// The rows become lines, so that they can be mended here.
		if (reading) text = reading.lines.map((one) => one.line).join('\n');
		input.value = '';
	}
</script>

<form
	class="lines no-print"
	onsubmit={(event) => {
		event.preventDefault();
		void add();
	}}
>
	<label for="kit-lines" class="heading">Put into the cupboard</label>
	<textarea
		id="kit-lines"
		rows={Math.min(8, Math.max(2, text.split('\n').length))}
		spellcheck="false"
		placeholder="about six 10 m microphone leads&#10;D7: passive DI"
		value={text}
		oninput={(event) => write(event.currentTarget.value)}></textarea>
	<div class="said" aria-live="polite">
		{#if trouble}<p class="problem">{trouble}</p>{/if}
		{#each reading?.lines ?? [] as line, index (index)}
			{#if line.problem}
				<p class="problem"><span class="quiet">{line.line}</span> {line.problem}</p>
			{:else}
				<p>
					<b>{line.words}</b>
					<span class="quiet"
						>{line.items
							.map((item) => item.tag)
							.slice(0, 8)
							.join(', ')}{line.items.length > 8 ? ', …' : ''}</span
					>
				</p>
			{/if}
		{/each}
	</div>
	<div class="buttons">
		<button type="submit" class="btn go" disabled={!reading?.edit}>
			Add {pieces}
			{pieces === 1 ? 'piece' : 'pieces'}{wrong.length > 0 && pieces > 0
				? `, keep ${wrong.length} to mend`
				: ''}
		</button>
		<label class="btn preset-tonal">
			From a CSV list
			<input
				type="file"
				accept=".csv,.txt,.tsv,text/csv,text/plain"
				class="sr-only"
				onchange={(event) => void pick(event.currentTarget)}
			/>
		</label>
	</div>
</form>

<style>
	.lines {
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
	label:focus-within {
		outline: 2px solid var(--accent);
		outline-offset: 2px;
	}
</style>
