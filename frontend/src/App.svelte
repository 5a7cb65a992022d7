<script lang="ts">
	import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
	import { wasCancelled } from './lib/api/client';
	import Frame from './lib/components/frame/Frame.svelte';
	import Gate from './lib/components/people/Gate.svelte';
	import type { Alone } from './lib/components/people/alone';
	import Away from './routes/check/Away.svelte';
	import { VIEWS } from './routes/routes';
	import { Desk, setDesk } from './lib/state/desk.svelte';

	const queries = new QueryClient({
		defaultOptions: {
			queries: {
				retry: (failed, reason) => failed < 1 && !wasCancelled(reason),
				staleTime: 30_000,
				refetchOnWindowFocus: true
			}
		}
	});
	setDesk(new Desk(queries));
</script>

<QueryClientProvider client={queries}>
	<Gate>
		<Frame views={VIEWS} />
		{#snippet away(alone: Alone)}<Away {...alone} />{/snippet}
	</Gate>
</QueryClientProvider>
