<!-- The building in plain words, one thing a line, said back before anything is added. -->
<script lang="ts">
	import { Trouble, type Schemas } from '../../api/client';
	import { readVenue } from '../../api/venues';
	import { getDesk } from '../../state/desk.svelte';

	let { rigId }: { rigId: string } = $props();
	const desk = getDesk();
	const PAUSE_MS = 120;
	const EXAMPLE = 'circuit 2, 16 A, stage: outlets 5-8; strip stage left\noutlet 5: 0.4 V against outlet 1';

	let text = $state('');
	let reading = $state<Schemas['VenueReading'] | null>(null);
	let trouble = $state('');
	let asking: AbortController | null = null;
	let timer: ReturnType<typeof setTimeout> | undefined;

	function write(next: string): void {
		text = next;
		clearTimeout(timer);
		asking?.abort();
		trouble = '';
		if (next.trim()) timer = setTimeout(() => void ask(next), PAUSE_MS);
		else reading = null;
	}

	async function ask(wanted: string): Promise<void> {
		const mine = (asking = new AbortController());
		try {
			const answer = await readVenue(rigId, wanted, mine.signal);
			if (!mine.signal.aborted) reading = answer;
		} catch (reason) {
			if (mine.signal.aborted) return;
			if (!(reason instanceof Trouble)) throw reason;
			reading = null;
			trouble = reason.message;
		}
	}

	async function add(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (!reading?.edit) return;
		const left = reading.lines.filter((line) => line.problem).map((line) => line.line);
		await desk.sync.edit(reading.edit);
		// What was not understood stays to be mended.
		write(left.join('\n'));
	}
</script>

<form onsubmit={(event) => void add(event)}>
	<label class="field">
		<span>Boards, circuits, strips, outlets, and what was measured</span>
		<textarea
			rows="3"
			spellcheck="false"
			placeholder={EXAMPLE}
			value={text}
			oninput={(event) => write(event.currentTarget.value)}></textarea>
	</label>
	{#if reading}
		<ul aria-live="polite">
			{#each reading.lines as line, index (index)}
				<li class:wrong={line.problem !== null}>
					{#if line.problem}<b>{line.line}</b> {line.problem}{:else}{line.words}{/if}
				</li>
			{/each}
		</ul>
		{#if !reading.edit && reading.lines.every((line) => line.problem === null)}
			<p class="quiet">All of this is known already.</p>
		{/if}
	{/if}
	{#if trouble}<p role="alert">{trouble}</p>{/if}
	<button type="submit" class="btn go" disabled={!reading?.edit}>Add to the venue</button>
</form>

<style>
	form {
		display: grid;
		gap: 0.6rem;
		justify-items: start;
	}
	.field {
		width: 100%;
	}
	textarea {
		width: min(46rem, 100%);
		padding: 0.5rem 0.7rem;
		background: var(--panel);
		border: 1px solid var(--line-strong);
		color: var(--ink);
		font-family: 'JetBrains Mono Variable', monospace;
		font-size: 0.875rem;
		font-weight: 400;
		field-sizing: content;
		min-height: 4.2rem;
	}
	li {
		font-size: 0.875rem;
		padding: 0.15rem 0;
	}
	.wrong {
		padding-left: 0.6rem;
		border-left: 3px solid var(--stop);
	}
</style>
