/** The rig's venue and the house's: each query's key and fetch, side by side. */
import { queryOptions } from '@tanstack/svelte-query';
import { newId } from '../domain/ids';
import { answer, client } from './client';
import { saveEdit } from './queries';

const path = (rig_id: string) => ({ params: { path: { rig_id } } });

/** Venues of the house, by name. */
export const venuesQuery = () =>
	queryOptions({ queryKey: ['venues'], queryFn: () => answer(client.GET('/api/venues')) });

/** How the rig's venue stands to the house's. */
export const standingQuery = (rigId: string, version: string) =>
	queryOptions({
		queryKey: ['venue', rigId, version],
		queryFn: () => answer(client.GET('/api/rigs/{rig_id}/venue', path(rigId)))
	});

/** What the house's newest revision would change in the rig. */
export const newerQuery = (rigId: string, version: string, revision: number) =>
	queryOptions({
		queryKey: ['venue', rigId, version, 'newer', revision],
		queryFn: () => answer(client.GET('/api/rigs/{rig_id}/venue/newer', path(rigId)))
	});

/** A new rig in a venue of the house has everything of it from the beginning. */
export async function moveInto(rigId: string, version: string, venueId: string): Promise<void> {
	await belongTo(rigId, venueId);
	const { edit } = await answer(client.GET('/api/rigs/{rig_id}/venue/newer', path(rigId)));
	if (edit) await saveEdit(rigId, version, edit, newId());
}

/** What typed lines add to the venue. */
export const readVenue = (rigId: string, text: string, signal?: AbortSignal) =>
	answer(
		client.POST('/api/rigs/{rig_id}/venue-lines', { ...path(rigId), body: { text }, signal: signal ?? null })
	);

export const belongTo = (rigId: string, venue_id: string) =>
	answer(client.PUT('/api/rigs/{rig_id}/venue', { ...path(rigId), body: { venue_id } }));

/** The rig's venue as the house's next revision. */
export const saveVenue = (rigId: string, words: string): Promise<unknown> =>
	answer(client.POST('/api/rigs/{rig_id}/venue', { ...path(rigId), body: { words } }));
