<!-- The keys, shown by "?". -->
<script lang="ts">
	import { Dialog, Portal } from '@skeletonlabs/skeleton-svelte';
	import { KEYS } from '../../state/shortcuts';

	let { open = $bindable(false) }: { open: boolean } = $props();
</script>

<Dialog {open} onOpenChange={(details) => (open = details.open)}>
	<Portal>
		<Dialog.Backdrop class="keys-backdrop" />
		<Dialog.Positioner class="keys-place">
			<Dialog.Content class="keys-box">
				<Dialog.Title class="keys-title">Keys</Dialog.Title>
				<dl>
					{#each KEYS as [key, words] (key)}
						<dt><kbd class="figure">{key}</kbd></dt>
						<dd>{words}</dd>
					{/each}
				</dl>
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
		max-width: 30rem;
	}
	:global(.keys-title) {
		font-size: 1.3rem;
	}
	dl {
		display: grid;
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
