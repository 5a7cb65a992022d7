<!-- One line makes a run: what was understood stands below while it is typed; Enter adds it. -->
<script lang="ts">
	import { push } from 'svelte-spa-router';
	import { getDesk } from '../../state/desk.svelte';
	import { LineEntry } from '../../state/entry.svelte';
	import Found from './Found.svelte';
	import ManyLines from './ManyLines.svelte';
	import Understood from './Understood.svelte';

	const desk = getDesk();
	const entry = new LineEntry(
		() => desk.selection.rigId,
		() => desk.sync.allSaved()
	);
	let field = $state<HTMLInputElement>();
	let open = $state(false);
	let picked = $state(-1);
	let many = $state(false);
	let pasted = $state('');
	/** Where the first thing leads that was found by the words. */
	let found = $state<string | null>(null);
	/** Whether somebody else's edit took what the line needed after it had been read. */
	let overtaken = $state(false);

	const completions = $derived(entry.readings?.completions ?? []);
	const reading = $derived(entry.readings?.readings[0]);
	const shown = $derived(
		open && entry.text.trim() !== '' && (entry.readings !== null || entry.trouble !== null)
	);

	function type(text: string): void {
		picked = -1;
		open = true;
		overtaken = false;
		entry.write(text);
	}

	function complete(text: string): void {
		type(text);
		field?.focus();
	}

	$effect(() => {
		if (!desk.suggested) return;
		complete(desk.suggested);
		desk.suggested = '';
	});

	async function add(): Promise<void> {
		const line = entry.text;
		if (!entry.settled) await entry.read();
		// Typed on, or added by an earlier press, while the answer was on its way.
		if (entry.text !== line || !entry.settled) return;
		const { edit, version, readings = [] } = entry.readings ?? {};
		if (!edit || !version || readings.some((one) => one.problems.length > 0)) {
			if (found !== null) jump(found);
			return;
		}
		const run = readings[0]?.runs[0]?.run;
		entry.clear();
		if (await desk.sync.edit(edit, version)) {
			if (run) desk.selection.select(run);
		} else if (!desk.sync.unsent && !entry.text) {
			// The line is read again, with what is still free.
			desk.sync.dismiss();
			type(line);
			overtaken = true;
		}
	}

	/** What is no line may name something that there is. */
	function jump(address: string): void {
		leave();
		void push(address);
	}

	function leave(): void {
		entry.clear();
		found = null;
		field?.blur();
	}

	function key(event: KeyboardEvent): void {
		const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
		if (step !== undefined && completions.length > 0) {
			picked = Math.min(completions.length - 1, Math.max(-1, picked + step));
		} else if (event.key === 'Tab' && !event.shiftKey && completions.length > 0 && open && entry.text) {
			complete(completions[Math.max(0, picked)] ?? entry.text);
		} else if (event.key === 'Enter' && picked >= 0) {
			complete(completions[picked] ?? entry.text);
		} else if (event.key === 'Enter') {
			void add();
		} else if (event.key === 'Escape') {
			if (entry.text) entry.clear();
			else field?.blur();
		} else if (event.key === '/' && !entry.text) {
			// The key that leads here, pressed once too often.
		} else return;
		event.preventDefault();
	}

	/** Several lines at once get a page of their own. */
	function paste(event: ClipboardEvent): void {
		const text = event.clipboardData?.getData('text') ?? '';
		if (!/\n\s*\S/.test(text)) return;
		event.preventDefault();
		pasted = text;
		many = true;
	}
</script>

<div
	class="entry no-print"
	onfocusout={(event) => (open = event.currentTarget.contains(event.relatedTarget as Node))}
>
	<input
		bind:this={field}
		id="line"
		class="line"
		type="text"
		role="combobox"
		autocomplete="off"
		spellcheck="false"
		placeholder="Type a run, or find"
		aria-label="Type a run"
		aria-expanded={shown}
		aria-controls="understood"
		aria-autocomplete="list"
		aria-activedescendant={picked >= 0 ? `completion-${picked}` : undefined}
		value={entry.text}
		oninput={(event) => type(event.currentTarget.value)}
		onfocus={() => (open = true)}
		onkeydown={key}
		onpaste={paste}
	/>
	<button type="button" class="many" onclick={() => (many = true)} title="Many lines or an input list"
		>Input list…</button
	>
	{#if shown}
		<div class="panel" id="understood">
			{#if overtaken}
				<p class="overtaken" role="status">
					Not added yet: somebody changed the rig meanwhile. This is the line with what is free now.
				</p>
			{/if}
			<Found text={entry.text} bind:first={found} onjump={leave} />
			<Understood
				{reading}
				trouble={entry.trouble}
				{completions}
				{picked}
				oncomplete={complete}
				onadd={add}
			/>
		</div>
	{/if}
</div>
<ManyLines bind:open={many} start={pasted} />

<style>
	.entry {
		position: relative;
		flex: 1 1 16rem;
		min-width: 0;
		max-width: 38rem;
		display: flex;
		align-items: center;
		gap: 0.4rem;
	}
	.line {
		flex: 1;
		min-width: 0;
		background: var(--panel);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		padding: 0.42rem 0.7rem;
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 0.875rem;
	}
	@media (min-width: 1000px) {
		/* As wide as its panel while somebody types: a whole line is seen at once. */
		.line:focus:not(:placeholder-shown) {
			flex: 0 0 40rem;
			/* Over what stands beside it, so that nothing moves. */
			margin-right: calc(100% - 40rem - 5.5rem);
			position: relative;
			z-index: 31;
		}
	}
	.line::placeholder {
		color: var(--dim);
		opacity: 1;
	}
	.many {
		font-size: 0.8125rem;
		color: var(--dim);
		padding: 0.45rem 0.4rem;
		min-height: 24px;
	}
	.many:hover {
		color: var(--ink);
	}
	.panel {
		position: absolute;
		top: calc(100% + 6px);
		left: 0;
		width: min(40rem, calc(100vw - 1.5rem));
		z-index: 30;
		background: var(--raised);
		border: 1px solid var(--line-strong);
		box-shadow: var(--shadow);
		max-height: min(82vh, 46rem);
		overflow-y: auto;
	}
	.overtaken {
		padding: 0.55rem 0.9rem;
		background: var(--fix-wash);
	}
	@media (max-width: 720px) {
		.entry {
			flex-basis: 100%;
			order: 5;
			max-width: none;
		}
		.panel {
			width: 100%;
		}
	}
</style>
