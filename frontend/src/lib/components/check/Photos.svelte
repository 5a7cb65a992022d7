<!-- Photos of an entry, small; each opens large. Those that are still on this device are shown from there. -->
<script lang="ts">
	import { photoFile } from '../../api/log';

	let {
		rig,
		photos,
		here = new Map()
	}: { rig: string; photos: readonly string[]; here?: ReadonlyMap<string, Blob> } = $props();

	const shown = $derived(
		photos.map((id) => {
			const own = here.get(id);
			return { id, address: own ? URL.createObjectURL(own) : photoFile(rig, id), own: own !== undefined };
		})
	);
	$effect(() => {
		const addresses = shown.filter(({ own }) => own).map(({ address }) => address);
		return () => addresses.forEach((address) => URL.revokeObjectURL(address));
	});
</script>

{#if shown.length > 0}
	<span class="photos">
		{#each shown as photo, at (photo.id)}
			<a href={photo.address} target="_blank" rel="noopener"
				><img src={photo.address} alt="Photo {at + 1} of {shown.length}" loading="lazy" /></a
			>
		{/each}
	</span>
{/if}

<style>
	.photos {
		display: inline-flex;
		flex-wrap: wrap;
		gap: 0.4rem;
	}
	img {
		height: 4.5rem;
		min-width: 3rem;
		object-fit: cover;
		border: 1px solid var(--line);
	}
</style>
