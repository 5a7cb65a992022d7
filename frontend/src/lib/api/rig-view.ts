/** A rig as the screens show it: its record and the analysis of that very version, fetched in parts. */
import type { QueryClient } from '@tanstack/svelte-query';
import { answer, client, Trouble, type Schemas } from './client';

export type RunAnalysis = Schemas['RunAnalysis'];

/** Everything there is to say about one version. */
export interface Analysis {
	verdict: Schemas['Verdict'];
	findings: Schemas['RigFinding'][];
	assumed: Schemas['Assumed'][];
	destinations: Schemas['DestinationResult'][];
	runs: RunAnalysis[];
}

export type RigView = Schemas['RigState'] & { analysis: Analysis };

const NOT_CURRENT = 410;
/** As many keys as one address holds. */
const KEYS_AT_ONCE = 100;

export const fetchRecord = (rig_id: string) =>
	answer(client.GET('/api/rigs/{rig_id}', { params: { path: { rig_id } } }));

export const fetchVersion = (rig_id: string) =>
	answer(client.GET('/api/rigs/{rig_id}/version', { params: { path: { rig_id } } }));

/** The rig as it stands. Somebody may save it while its analysis is on the way; then the newer one is fetched. */
export async function fetchView(queries: QueryClient, rigId: string): Promise<RigView> {
	return viewOf(queries, await fetchRecord(rigId));
}

export async function viewOf(queries: QueryClient, record: Schemas['RigState']): Promise<RigView> {
	for (;;) {
		try {
			return { ...record, analysis: await fetchAnalysis(queries, record) };
		} catch (reason) {
			if (!(reason instanceof Trouble && reason.status === NOT_CURRENT)) throw reason;
			record = await fetchRecord(record.rig.id);
		}
	}
}

async function fetchAnalysis(queries: QueryClient, record: Schemas['RigState']): Promise<Analysis> {
	const path = { rig_id: record.rig.id, version: record.version };
	const overview = await answer(
		client.GET('/api/rigs/{rig_id}/versions/{version}/overview', { params: { path } })
	);
	const [destinations, details] = await Promise.all([
		answer(client.GET('/api/rigs/{rig_id}/versions/{version}/destinations', { params: { path } })),
		fetchDetails(queries, path, overview.runs)
	]);
	return {
		verdict: overview.verdict,
		findings: overview.findings,
		assumed: overview.assumed,
		destinations,
		runs: overview.runs.flatMap((run) => details.get(run.key) ?? [])
	};
}

/** Of each run; what a key names never changes, so only those that are new are fetched. */
async function fetchDetails(
	queries: QueryClient,
	path: { rig_id: string; version: string },
	runs: Schemas['RunSummary'][]
): Promise<Map<string, RunAnalysis>> {
	const known = new Map<string, RunAnalysis>();
	for (const { key } of runs) {
		const kept = queries.getQueryData<RunAnalysis>(['run', key]);
		if (kept) known.set(key, kept);
	}
	const missing = [...new Set(runs.map((run) => run.key))].filter((key) => !known.has(key));
	for (let first = 0; first < missing.length; first += KEYS_AT_ONCE) {
		const keys = missing.slice(first, first + KEYS_AT_ONCE).join(',');
		const found = await answer(
			client.GET('/api/rigs/{rig_id}/versions/{version}/runs', { params: { path, query: { keys } } })
		);
		for (const [key, run] of Object.entries(found)) known.set(key, run);
	}
	// Kept while they are on screen; an edit back and forth then fetches nothing.
	for (const [key, run] of known) queries.setQueryData(['run', key], run);
	return known;
}
