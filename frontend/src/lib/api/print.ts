/** Sheets of paper: one PDF, and tables. */
import { queryOptions } from '@tanstack/svelte-query';
import type { PrintChoice } from '../domain/print';
import { answer, client } from './client';

const address = (rigId: string): string => `/api/rigs/${encodeURIComponent(rigId)}`;

export const labelsFile = (rigId: string): string => `${address(rigId)}/labels`;
export const inputsFile = (rigId: string): string => `${address(rigId)}/inputs`;

export const wiringFile = (rigId: string, partId: string): string =>
	`${address(rigId)}/wiring/${encodeURIComponent(partId)}`;

/** Leads and adapters that somebody solders, each with a drawing. */
export const solderedQuery = (rigId: string, version: string) =>
	queryOptions({
		queryKey: ['soldered', rigId, version],
		queryFn: () => answer(client.GET('/api/rigs/{rig_id}/wiring', { params: { path: { rig_id: rigId } } })),
		staleTime: Infinity
	});

/** The chosen sheets as one file. */
export const makePdf = (rig_id: string, choice: PrintChoice, spareM: number): Promise<Blob> =>
	answer(
		client.GET('/api/rigs/{rig_id}/print', {
			params: { path: { rig_id }, query: { ...choice, spare_m: spareM } },
			parseAs: 'blob'
		})
	) as Promise<unknown> as Promise<Blob>;
