/** The log: a rig's entries, everything in the house, and a run's card for the check. */
import { queryOptions } from '@tanstack/svelte-query';
import { answer, client, long, short, Trouble, type Schemas } from './client';

const path = (rig_id: string) => ({ params: { path: { rig_id } } });

export const addEntries = (rig: string, entries: Schemas['NewEntry'][]): Promise<Schemas['Added']> =>
	answer(client.POST('/api/rigs/{rig_id}/log', { ...path(rig), ...short(), body: { entries } }));

/** A rig's log from its beginning. */
export const readLog = (rig: string): Promise<Schemas['RigLog']> =>
	answer(client.GET('/api/rigs/{rig_id}/log', { ...path(rig), ...short(), cache: 'no-store' }));

/** What came in after an entry. */
export const readNews = (rig_id: string, after: number): Promise<Schemas['LogNews']> =>
	answer(
		client.GET('/api/rigs/{rig_id}/log/news', {
			params: { path: { rig_id }, query: { after } },
			...short(),
			cache: 'no-store'
		})
	);

export const readRound = (rig_id: string): Promise<Schemas['Round']> =>
	answer(client.GET('/api/rigs/{rig_id}/round', path(rig_id)));

export const addPhoto = (rig_id: string, photo_id: string, picture: Blob): Promise<unknown> =>
	answer(
		client.PUT('/api/rigs/{rig_id}/photos/{photo_id}', {
			params: { path: { rig_id, photo_id } },
			body: '',
			bodySerializer: () => picture,
			headers: { 'Content-Type': picture.type },
			...long()
		})
	);

export const photoFile = (rig: string, photo: string): string =>
	`/api/rigs/${encodeURIComponent(rig)}/photos/${encodeURIComponent(photo)}`;

export const readCard = (rig_id: string, version: string, run_id: string): Promise<Schemas['CheckCard']> =>
	answer(
		client.GET('/api/rigs/{rig_id}/versions/{version}/runs/{run_id}/card', {
			params: { path: { rig_id, version, run_id } }
		})
	);

export const readOverview = (rig_id: string, version: string): Promise<Schemas['Overview']> =>
	answer(
		client.GET('/api/rigs/{rig_id}/versions/{version}/overview', {
			params: { path: { rig_id, version } }
		})
	);

export interface LogFilter {
	rig?: string;
	kind?: Schemas['LogLine']['kind'];
	words?: string;
	before?: string;
}

export const logQuery = (filter: LogFilter) =>
	queryOptions({
		queryKey: ['log', filter],
		queryFn: () => answer(client.GET('/api/log', { params: { query: filter } })),
		refetchInterval: 5000,
		staleTime: 0,
		placeholderData: (before: Schemas['LogLineList'] | undefined) => before
	});

/** What the log says over the weeks: of a rig and those that it was copied from, or of the whole house. */
export const weeksQuery = (rig: string | null) =>
	queryOptions({
		queryKey: ['log', 'weeks', rig],
		queryFn: () => answer(client.GET('/api/log/weeks', { params: { query: rig === null ? {} : { rig } } })),
		staleTime: 10_000
	});

export const checksCalendar = (rig: string | null): string =>
	`/api/log/calendar${rig === null ? '' : `?rig=${encodeURIComponent(rig)}`}`;

/** What a rig's runs had the last time, by run. */
export const lastTimeQuery = (rig: string) =>
	queryOptions({
		queryKey: ['last-time', rig],
		queryFn: async () => {
			const had = (await readLog(rig)).last_time;
			return Object.fromEntries(had.map((each) => [each.run, each]));
		}
	});

/** Whether there was no answer at all, so that it is worth trying again later. */
export const isOffline = (reason: unknown): boolean => reason instanceof Trouble && reason.status === 0;
