<!-- A link just made: its address and its QR code, shown this once. -->
<script lang="ts">
	import type { Schemas } from '../../api/client';
	import { until } from '../../domain/people';

	let { link, words, onclose }: { link: Schemas['MadeLink']; words: string; onclose: () => void } = $props();

	const onlyHere = $derived(/^https?:\/\/(127\.|localhost|\[::1\])/.test(link.address));
	let copied = $state(false);

	async function copy(): Promise<void> {
		await navigator.clipboard.writeText(link.address);
		copied = true;
	}
</script>

<section class="made" aria-label="Link for {link.name}">
	<img src={link.qr} alt="QR code of the link for {link.name}" width="168" height="168" />
	<div>
		<p class="what">{words}</p>
		<p>
			Let <b>{link.name}</b> scan it, or send the address. It is good until {until(link.ends_at)} and is shown only
			now.
		</p>
		<input readonly class="figure" aria-label="Address of the link" value={link.address} />
		{#if onlyHere}
			<p class="quiet">
				This server answers on this computer alone; <code class="figure">script/demo --lan</code> serves phones
				too.
			</p>
		{/if}
		<p class="doing">
			<button type="button" class="btn go" onclick={() => void copy()}
				>{copied ? 'Copied' : 'Copy the address'}</button
			>
			<button type="button" class="btn preset-tonal" onclick={onclose}>Close</button>
		</p>
	</div>
</section>

<style>
	.made {
		display: grid;
		grid-template-columns: auto minmax(0, 1fr);
		gap: 1.1rem;
		padding: 1rem;
		background: var(--panel);
		border-left: 4px solid var(--accent);
	}
	.made > div {
		display: grid;
		gap: 0.6rem;
		align-content: start;
	}
	.what {
		font-size: 1.05rem;
	}
	img {
		background: #fff;
	}
	input {
		width: 100%;
		padding: 0.4rem 0.6rem;
		background: var(--ground);
		border: 1px solid var(--line-strong);
		color: var(--ink);
	}
	.doing {
		display: flex;
		gap: 0.6rem;
	}
	@media (max-width: 720px) {
		.made {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
