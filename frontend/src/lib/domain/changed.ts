/** A rig's record after an edit was saved: what the server says it changed, put in its place. */
import type { Schemas } from '../api/client';

type RigState = Schemas['RigState'];
type Outcome = Schemas['EditOutcome'];
type Thing = { id: string };

/** Null where others have saved in between, so that the record has to be fetched anew. */
export function afterEdit(record: RigState, outcome: Outcome): RigState | null {
	if (outcome.base !== record.version) return null;
	let rig = record.rig;
	for (const change of outcome.changed) rig = withChange(rig, change);
	const { version, saved_at, undo_label, redo_label } = outcome;
	return { ...record, rig, version, saved_at, undo_label, redo_label };
}

function withChange(rig: RigState['rig'], change: Schemas['Changed']): RigState['rig'] {
	const own = (change.thing ?? {}) as object;
	switch (change.kind) {
		case 'rig':
			return { ...rig, ...own };
		case 'venue':
			return { ...rig, venue: { ...rig.venue, ...own } };
		case 'earth':
		case 'mains':
			return {
				...rig,
				venue: { ...rig.venue, [change.kind]: listed(rig.venue[change.kind] ?? [], change) }
			};
		default:
			return { ...rig, [change.kind]: listed((rig as Record<string, unknown>)[change.kind], change) };
	}
}

function listed(things: unknown, change: Schemas['Changed']): Thing[] {
	const all = (things ?? []) as Thing[];
	const others = all.filter((one) => one.id !== change.id);
	if (change.thing === null || change.at === null) return others;
	return [...others.slice(0, change.at), change.thing as unknown as Thing, ...others.slice(change.at)];
}
