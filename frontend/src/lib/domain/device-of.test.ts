import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { deviceOf } from './device-of';

const run = (id: string, from: string, to: string): unknown => ({
	id,
	joins: [
		{ a: from, b: 'M1.a' },
		{ a: 'M1.b', b: to }
	]
});

describe('the device a run is named after', () => {
	const rig = {
		gear: ['desk', 'lectern', 'keys', 'wedge'].map((id) => ({ id })),
		runs: [
			run('one', 'lectern.xlr', 'desk.mic1'),
			run('two', 'keys.left', 'desk.line2'),
			run('three', 'desk.aux1', 'wedge.in')
		]
	} as unknown as Schemas['Rig'];

	it('is the source of an input and the destination of an output', () => {
		expect((rig.runs ?? []).map((each) => deviceOf(rig, each)?.id)).toEqual(['lectern', 'keys', 'wedge']);
	});

	it('is nothing where a run has no ends', () => {
		expect(deviceOf(rig, { joins: [] } as unknown as Schemas['Run'])).toBeUndefined();
	});
});
