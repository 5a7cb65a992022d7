import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { arrivesWords, inputName, shownInput } from './inputs';

const input = (gear: string, id: string) =>
	({ gear, input: id, label: `In ${id}` }) as Schemas['InputResult'];

function run(inputs: Schemas['InputResult'][], subject = ''): Schemas['RunAnalysis'] {
	return { findings: [{ subject }], result: { inputs } } as unknown as Schemas['RunAnalysis'];
}

const rig = { venue: {}, gear: [{ id: 's1', name: 'Wedge 1' }] } as unknown as Schemas['Rig'];

describe('the input told in figures', () => {
	const [one, two] = [input('s1', 'a'), input('s2', 'a')];

	it('is the one the worst finding is about', () => {
		expect(shownInput(run([one, two], 's2.a'), null)).toBe(two);
	});

	it('is the one asked for, while the run has it', () => {
		expect(shownInput(run([one, two], 's2.a'), 's1.a')).toBe(one);
		expect(shownInput(run([two], 'desk.mix'), 's1.a')).toBe(two);
	});

	it('is none where nothing listens', () => {
		expect(shownInput(run([]), 's1.a')).toBeUndefined();
	});

	it('gets a level, or watts where it is a loudspeaker', () => {
		const levels = [{ active: true, arriving_dbu: -4.1 }];
		expect(arrivesWords({ ...one, levels } as Schemas['InputResult'])).toBe('−4.1 dBu');
		const loudspeaker = { peak_w: 38.5 };
		expect(arrivesWords({ ...one, levels, loudspeaker } as Schemas['InputResult'])).toBe('38.5 W');
	});

	it('is called by its label, or by its device where there are several', () => {
		expect(inputName(rig, run([one, input('s1', 'b')]), one)).toBe('In a');
		expect(inputName(rig, run([one, two]), one)).toBe('Wedge 1');
		expect(inputName(rig, run([one, two, input('s1', 'b')]), one)).toBe('Wedge 1, In a');
	});
});
