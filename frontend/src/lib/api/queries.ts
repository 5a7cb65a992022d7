/** Each query's key and fetch, side by side. */
import { queryOptions } from '@tanstack/svelte-query';
import { answer, client, type Schemas } from './client';

export const sessionQuery = () =>
	queryOptions({ queryKey: ['session'], queryFn: () => answer(client.GET('/api/session')) });

export const renamePerson = (name: string) => answer(client.PUT('/api/session', { body: { name } }));

export const rigsQuery = () =>
	queryOptions({ queryKey: ['rigs'], queryFn: () => answer(client.GET('/api/rigs')) });

export const rigQuery = (rigId: string) =>
	queryOptions({
		queryKey: ['rig', rigId],
		queryFn: () => answer(client.GET('/api/rigs/{rig_id}', { params: { path: { rig_id: rigId } } }))
	});

/** Remedies hold for one version of the rig, so the version is part of the key. */
export const remediesQuery = (rigId: string, runId: string, version: number) =>
	queryOptions({
		queryKey: ['remedies', rigId, runId, version],
		queryFn: () =>
			answer(
				client.GET('/api/rigs/{rig_id}/runs/{run_id}/remedies', {
					params: { path: { rig_id: rigId, run_id: runId } }
				})
			),
		staleTime: Infinity
	});

export const historyQuery = (rigId: string, version: number) =>
	queryOptions({
		queryKey: ['history', rigId, version],
		queryFn: () => answer(client.GET('/api/rigs/{rig_id}/history', { params: { path: { rig_id: rigId } } }))
	});

const path = (rigId: string) => ({ params: { path: { rig_id: rigId } } });

export const saveEdit = (rigId: string, base_version: number, edit: Schemas['Edit']) =>
	answer(client.POST('/api/rigs/{rig_id}/edits', { ...path(rigId), body: { base_version, edit } }));

export const undoEdit = (rigId: string) => answer(client.POST('/api/rigs/{rig_id}/undo', path(rigId)));

export const redoEdit = (rigId: string) => answer(client.POST('/api/rigs/{rig_id}/redo', path(rigId)));

/** Sends a rig file as it is; the server reads it and names every fault. */
export const importRig = (text: string) =>
	answer(
		client.POST('/api/rigs', {
			body: {},
			bodySerializer: () => text,
			headers: { 'Content-Type': 'application/json' }
		})
	);
