/** The hook-up order of a rig as it stands. */
import { answer, client, short, type Schemas } from './client';

export const readHookUp = (rig_id: string): Promise<Schemas['HookUp']> =>
	answer(client.GET('/api/rigs/{rig_id}/hook-up', { params: { path: { rig_id } }, ...short() }));
