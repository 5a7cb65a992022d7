<!-- Name, day and hours of an occasion. -->
<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { Schemas } from '../../api/client';
	import { momentsOf, type Typed } from '../../domain/occasions';

	interface Props {
		label: string;
		start: Typed;
		button: string;
		busy: boolean;
		onsend: (body: Schemas['OccasionBody']) => Promise<void>;
		oncancel: () => void;
		children?: Snippet;
	}
	let { label, start, button, busy, onsend, oncancel, children }: Props = $props();

	// svelte-ignore state_referenced_locally
	let typed = $state({ ...start });
	const body = $derived(momentsOf(typed));
	const pastMidnight = $derived(typed.to !== '' && typed.to <= typed.from);

	async function send(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (body) await onsend(body);
	}
</script>

<form aria-label={label} onsubmit={(event) => void send(event)}>
	<div class="in-a-row">
		<label class="field"
			><span>Occasion</span>
			<input required maxlength="120" placeholder="Sunday service" bind:value={typed.name} /></label
		>
		<label class="field"><span>Day</span> <input type="date" required bind:value={typed.day} /></label>
		<label class="field time"
			><span>From (get-in)</span> <input type="time" required bind:value={typed.from} /></label
		>
		<label class="field time"
			><span>To (all packed){pastMidnight ? ', the next day' : ''}</span>
			<input type="time" required bind:value={typed.to} /></label
		>
	</div>
	{@render children?.()}
	<div class="in-a-row">
		<button type="submit" class="btn go" disabled={busy || !body}>{button}</button>
		<button type="button" class="btn" onclick={oncancel}>Cancel</button>
	</div>
</form>

<style>
	form {
		display: grid;
		gap: 0.8rem;
		padding: 0.8rem 1rem;
		background: var(--panel);
		border: 1px solid var(--line);
	}
	.time input {
		width: 8rem;
	}
</style>
