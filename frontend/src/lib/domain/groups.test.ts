import type { RigView } from '../api/rig-view';
import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { grouped, worstFirst, worstRun } from './groups';
import { worstOf } from './grades';

const run = (id: string, gear: string | null) =>
	({
		run: id,
		result: { inputs: gear ? [{ gear }] : [] },
		findings: []
	}) as unknown as Schemas['RunAnalysis'];

const state = (...runs: Schemas['RunAnalysis'][]) =>
	({
		rig: { gear: [{ id: 'desk', name: 'Desk' }] },
		analysis: { runs }
	}) as unknown as RigView;

describe('runs', () => {
	it('stand together by where they go, in the rig’s order', () => {
		const groups = grouped(state(run('a', 'desk'), run('b', 'box'), run('c', 'desk'), run('d', null)));
		expect(groups.map((group) => [group.words, group.runs.map((one) => one.run)])).toEqual([
			['Into Desk', ['a', 'c']],
			['Into box', ['b']],
			['Not connected yet', ['d']]
		]);
	});

	it('stand worst first on request, and the worst is the one to see first', () => {
		const graded = (id: string, grade: string) =>
			({ ...run(id, 'desk'), findings: [{ grade }] }) as unknown as Schemas['RunAnalysis'];
		const rig = state(graded('a', 'clear'), graded('b', 'fix'), graded('c', 'stop'), graded('d', 'fix'));
		expect(worstFirst(rig).map((group) => group.runs.map((one) => one.run))).toEqual([
			['c'],
			['b', 'd'],
			['a']
		]);
		expect(worstRun(rig)?.run).toBe('c');
		expect(worstRun(state())).toBeUndefined();
	});

	it('are as bad as their worst finding, and clear without one', () => {
		expect(worstOf(run('a', null))).toBe('clear');
		const findings = [{ grade: 'fix' }, { grade: 'watch' }];
		expect(worstOf({ ...run('a', null), findings } as Schemas['RunAnalysis'])).toBe('fix');
	});
});
