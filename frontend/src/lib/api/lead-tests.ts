/** Testing leads: of the cupboard, or a rig's own. */
import { queryOptions } from '@tanstack/svelte-query';
import { answer, client, type Schemas } from './client';

/** A thing of the cupboard, or a piece of a rig. */
export type Tested = { item: string } | { rig: string; kit: string };

type Body = Schemas['ReadingsBody'];
type Place = NonNullable<Body['moved_at']>;

const item = (item_id: string) => ({ params: { path: { item_id } } });
const kit = (rig_id: string, kit_id: string) => ({ params: { path: { rig_id, kit_id } } });

export const testerQuery = () =>
	queryOptions({
		queryKey: ['tester'],
		queryFn: () => answer(client.GET('/api/tester')),
		retry: false
	});

export const readBench = (of: Tested, body: Body): Promise<Schemas['LeadOnBench']> =>
	'item' in of
		? answer(client.POST('/api/cupboard/items/{item_id}/readings', { ...item(of.item), body }))
		: answer(client.POST('/api/rigs/{rig_id}/kit/{kit_id}/readings', { ...kit(of.rig, of.kit), body }));

export function askTester(
	of: Tested,
	moved_at: Place | null,
	readings: Body['readings']
): Promise<Schemas['LeadOnBench']> {
	const body = { moved_at, readings };
	return 'item' in of
		? answer(client.POST('/api/cupboard/items/{item_id}/readings/tester', { ...item(of.item), body }))
		: answer(
				client.POST('/api/rigs/{rig_id}/kit/{kit_id}/readings/tester', { ...kit(of.rig, of.kit), body })
			);
}

export const saveTest = (of: Tested, body: Schemas['NewLeadTest']): Promise<Schemas['LeadOnBench']> =>
	'item' in of
		? answer(client.POST('/api/cupboard/items/{item_id}/tests', { ...item(of.item), body }))
		: answer(client.POST('/api/rigs/{rig_id}/kit/{kit_id}/tests', { ...kit(of.rig, of.kit), body }));

/** What happened to a thing of the cupboard, the latest first. */
export const thingHistoryQuery = (id: string) =>
	queryOptions({
		queryKey: ['log', 'thing', id],
		queryFn: () => answer(client.GET('/api/log', { params: { query: { item: id } } })),
		staleTime: 0
	});
