/** Operations of an edit, by the thing and the field they change. */
import type { Schemas } from '../api/client';

export type SetField = Schemas['SetField'];
type Kind = SetField['kind'];

/** The place of a value; the rig and its venue have no id. `key`: one entry of a field that holds several. */
export function setField(kind: Kind, id: string | null, field: string, key: string | null = null) {
	return { op: 'set' as const, kind, id, field, key };
}

/** One field of one thing. */
export const set = (kind: Kind, id: string, field: string, value: unknown): SetField => ({
	...setField(kind, id, field),
	value
});

/** Adds a thing, or replaces the one with its id. */
export const put = (
	kind: Schemas['PutThing']['kind'],
	thing: Schemas['PutThing']['thing']
): Schemas['PutThing'] => ({ op: 'put', kind, thing, at: null });
