import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { deleteRuns, plugSources, renumber, runsOf, setLength, setPhantom } from './together';

const rig = {
	gear: [
		{ id: 'vocal', name: 'Vocal', part: 'mic' },
		{ id: 'keys', name: 'Keys', part: 'keys' },
		{ id: 'desk', name: 'Desk', part: 'desk' }
	],
	parts: [
		{ id: 'desk', inputs: [{ id: 'in1', connectors: ['mic1'], phantom: { setting: 'phantom1' } }] },
		{ id: 'keys', earthing: { type: 'class-1' } }
	],
	kit: [
		{ id: 'm1', length_m: 5 },
		{ id: 'm2', length_m: 10 },
		{ id: 'box', length_m: 30, installed: true }
	],
	runs: [
		{
			id: 'a',
			number: 1,
			name: 'Vocal',
			pieces: ['m1', 'm2', 'box'],
			joins: [
				{ a: 'vocal.out', b: 'm1.in' },
				{ a: 'm2.out', b: 'desk.mic1' }
			]
		},
		{ id: 'b', number: 2, name: 'Keys', pieces: [], joins: [{ a: 'keys.left', b: 'desk.line2' }] }
	],
	venue: { earth: [{ id: 'strip-1', name: 'Strip 1', kind: 'strip', parent: null }] }
} as unknown as Schemas['Rig'];
const [a, b] = rig.runs as [Schemas['Run'], Schemas['Run']];

describe('several runs at once', () => {
	it('are found in the order asked for', () => {
		expect(runsOf(rig, ['b', 'gone', 'a'])).toEqual([b, a]);
	});

	it('are deleted in one edit', () => {
		expect(deleteRuns([a, b])).toEqual({
			label: 'Delete 2 runs',
			ops: [
				{ op: 'remove', kind: 'runs', id: 'a' },
				{ op: 'remove', kind: 'runs', id: 'b' }
			]
		});
		expect(deleteRuns([a]).label).toBe('Delete Vocal');
	});

	it('get a length at their longest lead that is not built in', () => {
		expect(setLength(rig, [a, b], 12)?.ops).toMatchObject([{ id: 'm2', field: 'length_m', value: 12 }]);
		expect(setLength(rig, [b], 12)).toBeNull();
	});

	it('get phantom where their inputs have it', () => {
		expect(setPhantom(rig, [a, b], true)?.ops).toMatchObject([
			{ kind: 'gear', id: 'desk', field: 'settings', key: 'phantom1', value: true }
		]);
		expect(setPhantom(rig, [b], true)).toBeNull();
	});

	it('are numbered in their order', () => {
		expect(renumber([b, a], 9).ops).toMatchObject([
			{ id: 'b', value: 9 },
			{ id: 'a', value: 10 }
		]);
	});

	it('have the plugs of their sources moved, where those have an earth', () => {
		const strip = { id: 'strip-1', name: 'Strip 1' };
		const edit = plugSources(rig, [a, b], strip);
		expect(edit?.ops).toMatchObject([{ kind: 'earth' }, { id: 'keys', field: 'outlet' }, { id: 'keys' }]);
		expect(plugSources(rig, [a], strip)).toBeNull();
	});
});
