/** The hook-up order of a rig's version. */
import { queryOptions } from '@tanstack/svelte-query';
import { answer, client } from './client';

export const hookUpQuery = (rigId: string, version: string) =>
	queryOptions({
		queryKey: ['hook-up', rigId, version],
		queryFn: () => answer(client.GET('/api/rigs/{rig_id}/hook-up', { params: { path: { rig_id: rigId } } }))
	});
