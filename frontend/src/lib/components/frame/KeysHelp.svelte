<!-- The keys, and lines to type, shown by "?". -->
<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import LINE_EXAMPLES from '../../domain/line-examples.json';
	import { KEYS } from '../../state/shortcuts';

	let { open = $bindable(false) }: { open: boolean } = $props();
</script>

<Dialog {open} onOpenChange={(details) => (open = details.open)}>
	<Portal>
		<Dialog.Backdrop class="keys-backdrop" />
		<Dialog.Positioner class="keys-place">
			<Dialog.Content class="keys-box">
				<Dialog.Title class="keys-title">Keys and lines</Dialog.Title>
				<div class="both">
					<dl>
						{#each KEYS as [key, words] (key)}
							<dt><kbd class="figure">{key}</kbd></dt>
							<dd>{words}</dd>
						{/each}
					</dl>
					<section aria-label="Lines to type">
						{#each Object.entries(LINE_EXAMPLES) as [what, lines] (what)}
							<h3 class="heading">{what}</h3>
							{#each lines as line (line)}<p><code class="figure">{line}</code></p>{/each}
						{/each}
					</section>
				</div>
				<Dialog.CloseTrigger class="btn preset-tonal">Close</Dialog.CloseTrigger>
			</Dialog.Content>
		</Dialog.Positioner>
	</Portal>
</Dialog>

<style>
	:global(.keys-backdrop) {
		position: fixed;
		inset: 0;
		z-index: 50;
		background: rgb(0 0 0 / 55%);
	}
	:global(.keys-place) {
		position: fixed;
		inset: 0;
		z-index: 51;
		display: grid;
		place-items: center;
		padding: 1rem;
	}
	:global(.keys-box) {
		background: var(--raised);
		color: var(--ink);
		border: 1px solid var(--line-strong);
		box-shadow: var(--shadow);
		padding: 1.3rem 1.6rem;
		display: grid;
		gap: 1rem;
		width: min(60rem, 100%);
		max-height: 100%;
		overflow-y: auto;
	}
	:global(.keys-title) {
		font-size: 1.3rem;
	}
	.both {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(min(22rem, 100%), 1fr));
		gap: 1rem 2.5rem;
	}
	h3:not(:first-child) {
		margin-top: 0.7rem;
	}
	code {
		font-size: 0.875rem;
		padding: 0;
		color: inherit;
		background: none;
	}
	dl {
		display: grid;
		align-content: start;
		grid-template-columns: auto 1fr;
		gap: 0.4rem 1.2rem;
	}
	kbd {
		border: 1px solid var(--line-strong);
		border-radius: 3px;
		padding: 0.05rem 0.45rem;
		white-space: nowrap;
	}
</style>
