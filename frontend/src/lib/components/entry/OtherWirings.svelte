<!-- Other wirings of a typed line that were computed: what each would do, and the line that asks for it. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import GradeMark from '../marks/GradeMark.svelte';

	interface Props {
		alternatives: readonly Schemas['Alternative'][];
		ontake: (line: string) => void;
	}
	let { alternatives, ontake }: Props = $props();
</script>

<section>
	<h3>Other wirings, computed</h3>
	{#each alternatives as other (other.line)}
		<!-- The field keeps the focus, as with the ways to go on. -->
		<button type="button" tabindex="-1" title="Type {other.line}" onclick={() => ontake(other.line)}>
			<GradeMark grade={other.finding.grade} />
			<span>
				<b>{other.pieces.join(', ') || 'Plugged straight in'}</b>
				{#if other.is_usual}<span class="usual">usual practice</span>{/if}
				<span class="quiet">{other.finding.sentence}</span>
			</span>
		</button>
	{/each}
</section>

<style>
	section {
		display: grid;
		gap: 0.2rem;
		border-top: 1px solid var(--line);
		padding-top: 0.5rem;
	}
	h3 {
		font-size: 0.8125rem;
		color: var(--dim);
	}
	button {
		display: grid;
		grid-template-columns: 4.6rem 1fr;
		gap: 0.6rem;
		align-items: baseline;
		text-align: left;
		padding: 0.2rem 0;
		font-size: 0.8125rem;
		min-width: 0;
	}
	button:hover {
		background: var(--line);
	}
	b {
		font-weight: 500;
	}
	.usual {
		border: 1px solid var(--line-strong);
		padding: 0 0.35rem;
		margin: 0 0.2rem;
		white-space: nowrap;
	}
</style>
