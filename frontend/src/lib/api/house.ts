/** The house's cupboard and occasions, and what is found across its rigs: each query's key and fetch, side by side. */
import { queryOptions } from '@tanstack/svelte-query';
import { answer, client, type Schemas } from './client';

/** Others change it too: asked again every few seconds while somebody looks. */
const AGAIN_MS = 5000;

export const cupboardQuery = () =>
	queryOptions({
		queryKey: ['cupboard'],
		queryFn: () => answer(client.GET('/api/cupboard')),
		refetchInterval: AGAIN_MS,
		staleTime: 0
	});

export const cupboardChangesQuery = (version: number) =>
	queryOptions({
		queryKey: ['cupboard', 'changes', version],
		queryFn: () => answer(client.GET('/api/cupboard/changes'))
	});

export const readCupboard = (text: string, signal?: AbortSignal) =>
	answer(client.POST('/api/cupboard/lines', { body: { text }, signal: signal ?? null }));

export const addToCupboard = (text: string) => answer(client.POST('/api/cupboard/items', { body: { text } }));

export const addCupboardList = (csv: string) => answer(client.POST('/api/cupboard/list', { body: { csv } }));

const item = (item_id: string) => ({ params: { path: { item_id } } });

/** One field; `was`: what is on screen, so that nobody's change is written over unseen. */
export const changeItem = (
	id: string,
	field: Schemas['ChangeItemBody']['field'],
	value: unknown,
	was: unknown
): Promise<unknown> =>
	answer(client.PATCH('/api/cupboard/items/{item_id}', { ...item(id), body: { field, value, was } }));

export const noteCondition = (id: string, body: Schemas['ConditionBody']): Promise<unknown> =>
	answer(client.PUT('/api/cupboard/items/{item_id}/condition', { ...item(id), body }));

export const removeItem = (id: string): Promise<unknown> =>
	answer(client.DELETE('/api/cupboard/items/{item_id}', item(id)));

const rig = (rig_id: string) => ({ params: { path: { rig_id } } });

/** A rig's own kit and devices become the house's. */
export const adoptKit = (id: string): Promise<unknown> =>
	answer(client.POST('/api/rigs/{rig_id}/cupboard', rig(id)));

export const drawItem = (rig_id: string, item_id: string): Promise<unknown> =>
	answer(client.PUT('/api/rigs/{rig_id}/cupboard/{item_id}', { params: { path: { rig_id, item_id } } }));

/** What no run of a rig uses goes back into the cupboard. */
export const putBack = (id: string): Promise<unknown> =>
	answer(client.DELETE('/api/rigs/{rig_id}/cupboard', rig(id)));

/** A cupboard's file: what it has and this one does not is added. */
export const importCupboard = (text: string) =>
	answer(
		client.POST('/api/cupboard', {
			body: { format: 'ruvak-cupboard', version: 1, items: [] },
			bodySerializer: () => text,
			headers: { 'Content-Type': 'application/json' }
		})
	);

/** A venue's file as a new venue of the house. */
export const importVenue = (text: string) =>
	answer(
		client.POST('/api/venues', {
			body: {},
			bodySerializer: () => text,
			headers: { 'Content-Type': 'application/json' }
		})
	);

/** An exported house: what it has and this one does not is added. */
export const importHouse = (archive: File) =>
	answer(
		client.POST('/api/house', {
			body: '',
			bodySerializer: () => archive,
			headers: { 'Content-Type': 'application/zip' }
		})
	);

export const occasionsQuery = () =>
	queryOptions({
		queryKey: ['occasions'],
		queryFn: () => answer(client.GET('/api/occasions')),
		refetchInterval: AGAIN_MS,
		staleTime: 0
	});

const occasion = (occasion_id: string) => ({ params: { path: { occasion_id } } });

export const addOccasion = (body: Schemas['NewOccasionBody']) =>
	answer(client.POST('/api/occasions', { body }));

export const changeOccasion = (id: string, body: Schemas['ChangeOccasionBody']) =>
	answer(client.PUT('/api/occasions/{occasion_id}', { ...occasion(id), body }));

/** When people are let in; null where nobody knows yet. */
export const openDoors = (id: string, doors_at: string | null) =>
	answer(client.PUT('/api/occasions/{occasion_id}/doors', { ...occasion(id), body: { doors_at } }));

export const removeOccasion = (id: string): Promise<unknown> =>
	answer(client.DELETE('/api/occasions/{occasion_id}', occasion(id)));

/** Another one like it: its rigs, what they have, and the notes nobody has seen to. */
export const makeAgain = (id: string, body: Schemas['OccasionBody']) =>
	answer(client.POST('/api/occasions/{occasion_id}/again', { ...occasion(id), body }));

export const putRig = (occasion_id: string, rig_id: string, replace: boolean) =>
	answer(
		client.PUT('/api/occasions/{occasion_id}/rigs/{rig_id}', {
			params: { path: { occasion_id, rig_id } },
			body: { replace }
		})
	);

export const takeRigOut = (occasion_id: string, rig_id: string): Promise<unknown> =>
	answer(
		client.DELETE('/api/occasions/{occasion_id}/rigs/{rig_id}', { params: { path: { occasion_id, rig_id } } })
	);

export const addNote = (id: string, words: string) =>
	answer(client.POST('/api/occasions/{occasion_id}/notes', { ...occasion(id), body: { words } }));

export const settleNote = (note_id: string, done: boolean): Promise<unknown> =>
	answer(client.PUT('/api/notes/{note_id}', { params: { path: { note_id } }, body: { done } }));

export const shelveRig = (id: string, shelf: Schemas['ShelfBody']['shelf']): Promise<unknown> =>
	answer(client.PUT('/api/rigs/{rig_id}/shelf', { ...rig(id), body: { shelf } }));

/** Rigs, runs, devices, leads, things of the cupboard, notes and findings that have all these words. */
export const findQuery = (q: string) =>
	queryOptions({
		queryKey: ['find', q],
		queryFn: () => answer(client.GET('/api/find', { params: { query: { q } } })),
		staleTime: 5000
	});

export const compareQuery = (rig_id: string, other_id: string) =>
	queryOptions({
		queryKey: ['compare', rig_id, other_id],
		queryFn: () =>
			answer(client.GET('/api/rigs/{rig_id}/compare/{other_id}', { params: { path: { rig_id, other_id } } })),
		staleTime: 0
	});
