/** Each query's key and fetch, side by side. */
import { queryOptions } from '@tanstack/svelte-query';
import { answer, client, type Schemas } from './client';
import { fetchView } from './rig-view';

export const rigsQuery = () =>
	queryOptions({ queryKey: ['rigs'], queryFn: () => answer(client.GET('/api/rigs')) });

export const rigQuery = (rigId: string) =>
	queryOptions({ queryKey: ['rig', rigId], queryFn: (context) => fetchView(context.client, rigId) });

/** Remedies hold for one version of the rig, so the version is part of the key. `first`: the one found soonest. */
export const remediesQuery = (rigId: string, runId: string, version: string, first: boolean) =>
	queryOptions({
		queryKey: ['remedies', rigId, runId, version, first],
		queryFn: () =>
			answer(
				client.GET('/api/rigs/{rig_id}/runs/{run_id}/remedies', {
					params: { path: { rig_id: rigId, run_id: runId }, query: { first } }
				})
			),
		staleTime: Infinity
	});

export const editShownQuery = (rigId: string, editId: number) =>
	queryOptions({
		queryKey: ['edit shown', rigId, editId],
		queryFn: () =>
			answer(
				client.GET('/api/rigs/{rig_id}/history/{edit_id}/runs', {
					params: { path: { rig_id: rigId, edit_id: editId } }
				})
			),
		staleTime: Infinity
	});

/** What a helper recorded becomes the plan. */
export const keepAsBuilt = (rig_id: string, edit_id: number) =>
	answer(client.POST('/api/rigs/{rig_id}/history/{edit_id}/keep', { params: { path: { rig_id, edit_id } } }));

/** What a helper recorded is taken back. */
export const restorePlan = (rig_id: string, edit_id: number) =>
	answer(
		client.POST('/api/rigs/{rig_id}/history/{edit_id}/restore', { params: { path: { rig_id, edit_id } } })
	);

export const historyQuery = (rigId: string, version: string) =>
	queryOptions({
		queryKey: ['history', rigId, version],
		queryFn: () => answer(client.GET('/api/rigs/{rig_id}/history', { params: { path: { rig_id: rigId } } }))
	});

const path = (rigId: string) => ({ params: { path: { rig_id: rigId } } });

/** `id`: the edit's own name, so that sent again after a lost answer it is not made twice. */
export const saveEdit = (rigId: string, base_version: string, edit: Schemas['Edit'], id: string) =>
	answer(client.POST('/api/rigs/{rig_id}/edits', { ...path(rigId), body: { base_version, edit, id } }));

export const undoEdit = (rigId: string, id: string) =>
	answer(client.POST('/api/rigs/{rig_id}/undo', { ...path(rigId), body: { id } }));

export const redoEdit = (rigId: string, id: string) =>
	answer(client.POST('/api/rigs/{rig_id}/redo', { ...path(rigId), body: { id } }));

/** Sends a rig file as it is; the server reads it and names every fault. */
export const importRig = (text: string) =>
	answer(
		client.POST('/api/rigs', {
			body: {},
			bodySerializer: () => text,
			headers: { 'Content-Type': 'application/json' }
		})
	);

/** A copy for another occasion, without the history. */
export const copyRig = (rigId: string, name: string, occasion: string) =>
	answer(client.POST('/api/rigs/{rig_id}/copies', { ...path(rigId), body: { name, occasion } }));

/** The rig and its history are gone. */
export const deleteRig = (rigId: string) => answer(client.DELETE('/api/rigs/{rig_id}', path(rigId)));

/** What typed lines mean. */
export const readLines = (rigId: string, text: string, signal?: AbortSignal) =>
	answer(client.POST('/api/rigs/{rig_id}/lines', { ...path(rigId), body: { text }, signal: signal ?? null }));

/** What an input list means, into the desk with the most inputs. */
export const readInputList = (rigId: string, csv: string, signal?: AbortSignal) =>
	answer(
		client.POST('/api/rigs/{rig_id}/input-list', {
			...path(rigId),
			body: { csv, goal: null },
			signal: signal ?? null
		})
	);

/** How displayed figures follow from others; the same for as long as the page lives. */
export const formulasQuery = () =>
	queryOptions({
		queryKey: ['formulas'],
		queryFn: () => answer(client.GET('/api/formulas')),
		staleTime: Infinity
	});

/** The contacts of each connector form; the same for as long as the page lives. */
export const contactsQuery = () =>
	queryOptions({
		queryKey: ['contacts'],
		queryFn: () => answer(client.GET('/api/contacts')),
		staleTime: Infinity
	});

/** What could stand at a place among a run's pieces. */
export const choicesQuery = (rigId: string, runId: string, version: string, at: number, replace: boolean) =>
	queryOptions({
		queryKey: ['choices', rigId, runId, version, at, replace],
		queryFn: () =>
			answer(
				client.GET('/api/rigs/{rig_id}/runs/{run_id}/choices', {
					params: { path: { rig_id: rigId, run_id: runId }, query: { at, replace } }
				})
			),
		staleTime: Infinity
	});

/** A run with other pieces, solved but not saved. */
export const rewire = (rigId: string, runId: string, pieces: Schemas['KitItem'][]) =>
	answer(
		client.POST('/api/rigs/{rig_id}/runs/{run_id}/pieces', {
			params: { path: { rig_id: rigId, run_id: runId } },
			body: { pieces }
		})
	);

/** What an edit would do, without doing it. */
export const previewEdit = (rigId: string, edit: Schemas['Edit']) =>
	answer(client.POST('/api/rigs/{rig_id}/preview', { ...path(rigId), body: { edit } }));

/** What typed lines, or the rows of a list, add to the kit. */
export const readKit = (rigId: string, text: string, signal?: AbortSignal) =>
	answer(
		client.POST('/api/rigs/{rig_id}/kit-lines', { ...path(rigId), body: { text }, signal: signal ?? null })
	);

export const readKitList = (rigId: string, csv: string) =>
	answer(client.POST('/api/rigs/{rig_id}/kit-list', { ...path(rigId), body: { csv } }));

/** The parts library; the same for as long as the page lives. */
export const partsQuery = () =>
	queryOptions({
		queryKey: ['parts'],
		queryFn: () => answer(client.GET('/api/parts')),
		staleTime: Infinity
	});

export const readPart = (part_id: string) =>
	answer(client.GET('/api/parts/{part_id}', { params: { path: { part_id } } }));
