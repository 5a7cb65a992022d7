<!-- A picture taken with this device, made smaller before it is kept. -->
<script lang="ts">
	import { Camera } from '@lucide/svelte';
	import { smaller } from '../../domain/photo';

	let { onphoto }: { onphoto: (picture: Blob) => void } = $props();
	let refused = $state(false);

	async function pick(input: HTMLInputElement): Promise<void> {
		const file = input.files?.[0];
		input.value = '';
		refused = false;
		if (file) {
			try {
				onphoto(await smaller(file));
			} catch {
				refused = true;
			}
		}
	}
</script>

<label class="btn preset-tonal">
	<Camera size={18} aria-hidden="true" /> Photo
	<input
		type="file"
		accept="image/*"
		capture="environment"
		class="sr-only"
		onchange={(event) => void pick(event.currentTarget)}
	/>
</label>
{#if refused}<p class="refused" role="alert">This file is no photo that can be read here.</p>{/if}

<style>
	label {
		min-height: 44px;
	}
	label:focus-within {
		outline: 2px solid var(--accent);
		outline-offset: 2px;
	}
</style>
