<!-- Many lines at once, or an input list as a table: read as they stand, errors beside the line, added together. -->
<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import { getDesk } from '../../state/desk.svelte';
	import { isTable, LineEntry } from '../../state/entry.svelte';
	import GradeMark from '../marks/GradeMark.svelte';

	let { open = $bindable(false), start }: { open: boolean; start: string } = $props();
	const desk = getDesk();
	const entry = new LineEntry(
		() => desk.selection.rigId,
		() => desk.sync.allSaved()
	);

	$effect(() => {
		if (open && start) entry.write(start);
	});

	const readings = $derived(entry.readings?.readings ?? []);
	const wrong = $derived(readings.filter((one) => one.problems.length > 0));
	const runs = $derived(readings.reduce((sum, one) => sum + one.runs.length, 0));
	const table = $derived(isTable(entry.text));

	async function add(): Promise<void> {
		if (!entry.settled) await entry.read();
		const { edit, version } = entry.readings ?? {};
		if (!edit || !version) return;
		const left = wrong.map((one) => one.line).join('\n');
		if (!(await desk.sync.edit(edit, version))) return;
		// What was not understood stays to be mended; the rest is in the rig.
		entry.write(left);
		if (!left) open = false;
	}

	async function pick(event: Event & { currentTarget: HTMLInputElement }): Promise<void> {
		const file = event.currentTarget.files?.[0];
		if (file) entry.write(await file.text());
	}
</script>

<Dialog {open} onOpenChange={(details) => (open = details.open)}>
	<Portal>
		<Dialog.Backdrop class="keys-backdrop" />
		<Dialog.Positioner class="keys-place">
			<Dialog.Content class="many-box">
				{#if open}
					<Dialog.Title class="keys-title">Many lines, or an input list</Dialog.Title>
					<p class="quiet">
						One run a line. Or paste a table with headings: channel, who, mic or DI, stand, phantom — in any
						order.
					</p>
					<textarea
						aria-label="Lines or a table"
						rows="9"
						spellcheck="false"
						placeholder="choir 1-4 &gt; desk 1-4, 20 m&#10;keys L/R &gt; desk 7/8"
						value={entry.text}
						oninput={(event) => entry.write(event.currentTarget.value)}></textarea>
					<label class="file">
						<span>or a file</span>
						<input type="file" accept=".csv,.txt,.tsv,text/csv,text/plain" onchange={pick} />
					</label>
					<div class="results" aria-live="polite">
						{#if entry.trouble}<p class="problem">{entry.trouble}</p>{/if}
						{#each readings as reading, index (index)}
							<div class="reading">
								<code>{reading.line}</code>
								{#if reading.problems[0]}
									<p class="problem">{reading.problems[0].sentence}</p>
								{:else}
									<p>
										{#if reading.runs[0]}<GradeMark grade={reading.runs[0].grade} />{/if}
										{reading.sentence}
										{#each reading.taken_for as words (words)}<span class="quiet">{words}</span>{/each}
									</p>
								{/if}
							</div>
						{/each}
					</div>
					<div class="buttons">
						<button type="button" class="btn go" disabled={runs === 0} onclick={() => void add()}>
							Add {runs}
							{runs === 1 ? 'run' : 'runs'}{wrong.length > 0 ? `, keep ${wrong.length} to mend` : ''}
						</button>
						<Dialog.CloseTrigger class="btn preset-tonal">Close</Dialog.CloseTrigger>
						{#if table}<span class="quiet">read as a table</span>{/if}
					</div>
				{/if}
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>

<style>
	:global(.many-box) {
		background: var(--raised);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		box-shadow: var(--shadow);
		padding: 1.2rem 1.4rem;
		display: grid;
		gap: 0.75rem;
		width: min(46rem, 100%);
		max-height: 92dvh;
		overflow-y: auto;
	}
	textarea {
		width: 100%;
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.6rem 0.7rem;
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 0.8125rem;
	}
	.file {
		display: flex;
		gap: 0.7rem;
		align-items: center;
		font-size: 0.8125rem;
	}
	.results {
		display: grid;
		gap: 0.45rem;
		font-size: 0.875rem;
	}
	.reading {
		border-top: 1px solid var(--line);
		padding-top: 0.4rem;
		min-width: 0;
	}
	code {
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 0.8125rem;
		color: var(--dim);
		background: transparent;
		padding: 0;
		overflow-wrap: anywhere;
	}
	.problem {
		border-left: 3px solid var(--fix);
		padding-left: 0.6rem;
	}
	.buttons {
		display: flex;
		align-items: center;
		gap: 0.8rem;
		flex-wrap: wrap;
	}
</style>
