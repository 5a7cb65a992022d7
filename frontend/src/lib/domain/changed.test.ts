import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { afterEdit } from './changed';

const record = {
	version: '1.0',
	saved_at: 'then',
	undo_label: null,
	redo_label: null,
	rig: {
		id: 'r',
		name: 'Rig',
		venue: { name: 'Hall', earth: [{ id: 'o1' }] },
		kit: [{ id: 'a' }, { id: 'b' }]
	}
} as unknown as Schemas['RigState'];

const outcome = (...changed: Schemas['Changed'][]): Schemas['EditOutcome'] => ({
	base: '1.0',
	version: '2.0',
	saved_at: 'now',
	undo_label: 'x',
	redo_label: null,
	changed
});

describe('a record after an edit', () => {
	it('has the new version and what can be undone', () => {
		expect(afterEdit(record, outcome())).toMatchObject({ version: '2.0', undo_label: 'x', saved_at: 'now' });
	});

	it('has things in their places', () => {
		const after = afterEdit(
			record,
			outcome(
				{ kind: 'kit', id: 'c', thing: { id: 'c' }, at: 0 },
				{ kind: 'kit', id: 'b', thing: { id: 'b', tag: 'B' }, at: 2 },
				{ kind: 'kit', id: 'a', thing: null, at: null },
				{ kind: 'earth', id: 'o2', thing: { id: 'o2' }, at: 1 }
			)
		);
		expect(after?.rig.kit).toEqual([{ id: 'c' }, { id: 'b', tag: 'B' }]);
		expect(after?.rig.venue.earth).toEqual([{ id: 'o1' }, { id: 'o2' }]);
		expect(record.rig.kit).toHaveLength(2);
	});

	it('has the fields of the rig and its venue', () => {
		const after = afterEdit(
			record,
			outcome(
				{ kind: 'rig', id: null, thing: { name: 'Other' }, at: null },
				{ kind: 'venue', id: null, thing: { name: 'Chapel' }, at: null }
			)
		);
		expect([after?.rig.name, after?.rig.venue.name]).toEqual(['Other', 'Chapel']);
	});

	it('is unknown where others saved in between', () => {
		expect(afterEdit(record, { ...outcome(), base: '1.1' })).toBeNull();
	});
});
