/** A rig as the screens show it: its record and the analysis of that very version, fetched in parts. */
import { queryOptions, type QueryClient } from '@tanstack/svelte-query';
import DataLoader from 'dataloader';
import { answer, client, short, Trouble, type Schemas } from './client';

export type RunAnalysis = Schemas['RunAnalysis'];

/** What there is to say about one version at a glance; each run's details are fetched when they come into sight. */
export interface Analysis {
	verdict: Schemas['Verdict'];
	findings: Schemas['RigFinding'][];
	assumed: Schemas['Assumed'][];
	destinations: Schemas['DestinationResult'][];
	runs: Schemas['RunSummary'][];
}

export type RigView = Schemas['RigState'] & { analysis: Analysis };

const NOT_CURRENT = 410;
/** So many runs' details at once: as many as a screen holds, read without holding up a frame. */
const KEYS_AT_ONCE = 25;

interface Version {
	rig_id: string;
	version: string;
}

export const fetchRecord = (rig_id: string) =>
	answer(client.GET('/api/rigs/{rig_id}', { params: { path: { rig_id } } }));

export const fetchVersion = (rig_id: string) =>
	answer(client.GET('/api/rigs/{rig_id}/version', { params: { path: { rig_id } }, ...short() }));

/** A run's conductors at a version that is still being analysed. */
export const fetchDrawing = (rig_id: string, version: string, run_id: string) =>
	answer(
		client.GET('/api/rigs/{rig_id}/versions/{version}/runs/{run_id}/drawing', {
			params: { path: { rig_id, version, run_id } }
		})
	);

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
	const [destinations] = await Promise.all([
		answer(client.GET('/api/rigs/{rig_id}/versions/{version}/destinations', { params: { path } })),
		fetchInSight(queries, path, overview.runs)
	]);
	const { verdict, findings, assumed, runs } = overview;
	return { verdict, findings, assumed, destinations, runs };
}

/** The details of the runs on screen come with the new version, so that none of them is empty for a moment. */
async function fetchInSight(
	queries: QueryClient,
	path: Version,
	runs: Schemas['RunSummary'][]
): Promise<void> {
	const shown = new Set(
		queries
			.getQueryCache()
			.findAll({ queryKey: ['run'], type: 'active' })
			.flatMap((query) => (query.state.data ? [(query.state.data as RunAnalysis).run] : []))
	);
	const missing = runs.filter(({ run, key }) => shown.has(run) && !queries.getQueryData(['run', key]));
	await Promise.all(
		missing.map(async ({ key }) => queries.setQueryData(['run', key], await loaderOf(path).load(key)))
	);
}

/** A run's details; what a key names never changes. */
export const runQuery = (rigId: string, key: string) =>
	queryOptions({
		queryKey: ['run', key],
		queryFn: ({ client: queries }) => {
			const version = queries.getQueryData<RigView>(['rig', rigId])?.version ?? '';
			return loaderOf({ rig_id: rigId, version }).load(key);
		},
		staleTime: Infinity
	});

let loader: { of: string; runs: DataLoader<string, RunAnalysis> } | null = null;

/** Gathers the runs asked for at the same moment into few requests. */
function loaderOf(path: Version): DataLoader<string, RunAnalysis> {
	const of = `${path.rig_id} ${path.version}`;
	if (loader?.of !== of) {
		const fetchRuns = async (keys: readonly string[]): Promise<(RunAnalysis | Error)[]> => {
			const query = { keys: keys.join(',') };
			const details = await answer(
				client.GET('/api/rigs/{rig_id}/versions/{version}/runs', { params: { path, query } })
			);
			return keys.map((key) => details[key] ?? new Error(`No details of the run ${key} at ${of}.`));
		};
		loader = { of, runs: new DataLoader(fetchRuns, { cache: false, maxBatchSize: KEYS_AT_ONCE }) };
	}
	return loader.runs;
}
