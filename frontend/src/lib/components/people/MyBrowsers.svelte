<!-- Where one is signed in, each of which can be signed out. -->
<script lang="ts">
	import { createQuery, useQueryClient } from '@tanstack/svelte-query';
	import { endSignIn, signInsQuery } from '../../api/people';
	import { clock, day } from '../../domain/format';
	import { deviceOf } from '../../domain/people';
	import { Asking } from '../../state/asking.svelte';
	import Part from './Part.svelte';

	const queries = useQueryClient();
	const signIns = createQuery(() => signInsQuery());
	const asking = new Asking();

	async function end(id: string): Promise<void> {
		await asking.ask(() => endSignIn(id));
		await queries.invalidateQueries({ queryKey: signInsQuery().queryKey });
	}
</script>

<Part
	heading="Where you are signed in"
	words="A browser that you do not know, or a phone that is gone, is signed out here at once."
	refused={asking.refused}
>
	<ul class="lines">
		{#each signIns.data ?? [] as browser (browser.id)}
			<li>
				<b>{deviceOf(browser.browser)}{browser.here ? ', this one' : ''}</b>
				<span class="quiet"
					>{browser.how === 'trusted computer' ? 'picked at a trusted computer, ' : ''}{browser.address}, last
					used {day(browser.seen_at)}
					{clock(browser.seen_at)}</span
				>
				{#if !browser.here}
					<button type="button" class="in-text" onclick={() => void end(browser.id)}>Sign out</button>
				{/if}
			</li>
		{/each}
	</ul>
</Part>
