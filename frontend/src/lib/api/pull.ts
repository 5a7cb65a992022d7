/** The pull list of a rig's day. */
import { queryOptions } from '@tanstack/svelte-query';
import { answer, client, type Schemas } from './client';

const rig = (rig_id: string) => ({ path: { rig_id } });

export const pullQuery = (rigId: string, version: string, spareM: number) =>
	queryOptions({
		queryKey: ['pull', rigId, version, spareM],
		queryFn: () =>
			answer(
				client.GET('/api/rigs/{rig_id}/pull', { params: { ...rig(rigId), query: { spare_m: spareM } } })
			),
		// Others fill and empty the cupboard meanwhile.
		staleTime: 0,
		refetchInterval: 15_000,
		placeholderData: (before: Schemas['DayPull'] | undefined) => before
	});

export const takeLeads = (rigId: string, spareM: number): Promise<Schemas['Taken']> =>
	answer(client.POST('/api/rigs/{rig_id}/pull', { params: rig(rigId), body: { spare_m: spareM } }));

export const pullFile = (rigId: string, spareM: number): string =>
	`/api/rigs/${encodeURIComponent(rigId)}/pull/table?spare_m=${String(spareM)}`;
