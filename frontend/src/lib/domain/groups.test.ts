import type { RigView } from '../api/rig-view';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { groupsOf, rowsOf, worstRun, type Group } from './groups';
import { worstOf } from './grades';

const run = (id: string, into: string | null, grade = 'clear') =>
	({ run: id, key: id, into, grade, sentence: '' }) as Schemas['RunSummary'];

const state = (...runs: Schemas['RunSummary'][]) =>
	({
		rig: {
			gear: [{ id: 'desk', name: 'Desk' }],
			runs: runs.map((one, index) => ({ id: one.run, number: runs.length - index }))
		},
		analysis: { runs, findings: [] }
	}) as unknown as RigView;

const names = (groups: Group[]) => groups.map((group) => [group.words, group.runs.map((one) => one.run)]);

describe('runs', () => {
	it('stand together by where they go, in the rig’s order', () => {
		const rig = state(run('a', 'desk'), run('b', 'box'), run('c', 'desk'), run('d', null));
		expect(names(groupsOf(rig, 'place'))).toEqual([
			['Into Desk', ['a', 'c']],
			['Into box', ['b']],
			['Not connected yet', ['d']]
		]);
	});

	it('stand by their numbers without headings on request', () => {
		expect(names(groupsOf(state(run('a', 'desk'), run('b', 'box')), 'listed'))).toEqual([['', ['b', 'a']]]);
		expect(groupsOf(state(), 'listed')).toEqual([]);
	});

	it('stand worst first on request, and the worst is the one to see first', () => {
		const rig = state(
			run('a', 'desk', 'clear'),
			run('b', 'desk', 'fix'),
			run('c', 'desk', 'stop'),
			run('d', 'desk', 'fix')
		);
		expect(groupsOf(rig, 'worst').map((group) => group.runs.map((one) => one.run))).toEqual([
			['c'],
			['b', 'd'],
			['a']
		]);
		expect(worstRun(rig)?.run).toBe('c');
		expect(worstRun(state())).toBeUndefined();
	});

	it('are lines of the list under their headings', () => {
		const rows = rowsOf(state(run('a', 'desk'), run('b', 'box')), 'place');
		expect(rows.map((row) => row.kind)).toEqual(['heading', 'run', 'heading', 'run']);
		expect(new Set(rows.map((row) => row.key)).size).toBe(4);
	});

	it('are as bad as their worst finding, and clear without one', () => {
		const analysed = (...grades: string[]) =>
			({ findings: grades.map((grade) => ({ grade })) }) as unknown as Schemas['RunAnalysis'];
		expect(worstOf(analysed())).toBe('clear');
		expect(worstOf(analysed('fix', 'watch'))).toBe('fix');
	});
});
