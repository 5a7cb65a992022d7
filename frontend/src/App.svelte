<script lang="ts">
	import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
	import Frame from './lib/components/frame/Frame.svelte';
	import Gate from './lib/components/people/Gate.svelte';
	import { VIEWS } from './routes/routes';
	import { Desk, setDesk } from './lib/state/desk.svelte';

	const queries = new QueryClient({
		defaultOptions: { queries: { retry: 1, staleTime: 30_000, refetchOnWindowFocus: true } }
	});
	setDesk(new Desk(queries));
</script>

<QueryClientProvider client={queries}>
	<Gate><Frame views={VIEWS} /></Gate>
</QueryClientProvider>
