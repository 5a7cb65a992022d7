import { describe, expect, it } from 'vitest';
import { draw, outcome, toggled, type LeadOnBench, type Reading } from './lead-bench';

const MIC: LeadOnBench = {
	name: 'M1',
	part: 'Microphone lead',
	plugs: [
		{ id: 'in', label: 'XLR female', side: 'in', contacts: ['2', '3', '1', 'shell'] },
		{ id: 'out', label: 'XLR male', side: 'out', contacts: ['2', '3', '1', 'shell'] }
	],
	joined: [
		['in.2', 'out.2'],
		['in.3', 'out.3'],
		['in.1', 'out.1']
	],
	condition: 'good',
	faults: [],
	test: { readings: [], lamp: null, moved_at: null },
	diagnosis: { verdict: 'unfinished', words: '', condition: null, explanations: [], next: null, unusual: [] }
};
const read = (a: string, b: string, state: Reading['state']): Reading => ({ a, b, state, ohm: null });

describe('a lead on the tester', () => {
	it('shows what should be joined until it is read', () => {
		const looks = (readings: Reading[]): string[] => draw(MIC, readings).wires.map(({ look }) => look);
		expect(looks([])).toEqual(['expected', 'expected', 'expected']);
		expect(looks([read('in.2', 'out.2', 'joined'), read('out.3', 'in.3', 'open')])).toEqual([
			'good',
			'open',
			'expected'
		]);
	});

	it('shows what is joined and should not be', () => {
		const { wires } = draw(MIC, [read('in.1', 'in.2', 'joined'), read('in.1', 'in.3', 'open')]);
		expect(wires.filter(({ look }) => look === 'wrong').map(({ from, to }) => [from.id, to.id])).toEqual([
			['in.1', 'in.2']
		]);
	});

	it('puts the plugs of a Y lead on their sides', () => {
		const second = { id: 'b', label: 'XLR male 2', side: 'out' as const, contacts: ['2', '3', '1', 'shell'] };
		const { plugs } = draw({ ...MIC, plugs: [...MIC.plugs, second] }, []);
		expect(plugs.map(({ side }) => side)).toEqual(['left', 'right', 'right']);
	});

	it('goes round the states of a pair by tapping it', () => {
		let readings: Reading[] = [];
		const states: (string | undefined)[] = [];
		for (let tap = 0; tap < 4; tap += 1) {
			readings = toggled(readings, 'in.2', 'out.2');
			states.push(readings[0]?.state);
		}
		expect(states).toEqual(['joined', 'open', 'flickers', undefined]);
	});

	it('says how the piece will stand', () => {
		const said = (condition: LeadOnBench['condition'] | null): string =>
			outcome({ ...MIC.diagnosis, condition }, null);
		expect([said('good'), said(null), said('faulty'), said('suspect')]).toEqual([
			'Save: good',
			'Save what was read',
			'Save: faulty',
			'Save: suspect'
		]);
		const moves = { faults: [], wired_as: null, words: '', condition: 'suspect' as const, share: 1 };
		expect(outcome({ ...MIC.diagnosis, condition: 'faulty', explanations: [moves] }, 0)).toBe(
			'Save: suspect'
		);
	});
});
