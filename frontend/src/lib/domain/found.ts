/** What was found across the house: where each match leads, and what kind of thing it is. */
import type { Schemas } from '../api/client';
import { addressOf } from './address';

export type Match = Schemas['Match'];

export const KINDS: Record<Match['kind'], string> = {
	rig: 'Rig',
	run: 'Run',
	device: 'Device',
	lead: 'Kit',
	cupboard: 'Cupboard',
	occasion: 'Date',
	note: 'Note',
	finding: 'Finding'
};

/** The address after `#` of what was found. */
export function leadsTo({ kind, rig, thing }: Match): string {
	switch (kind) {
		case 'rig':
			return addressOf({ station: 'runs', rig, run: null });
		case 'run':
		case 'finding':
			return addressOf({ station: 'runs', rig, run: thing });
		case 'device':
			return addressOf({ station: 'runs', rig, run: null });
		case 'lead':
			return addressOf({ station: 'kit', rig, run: null });
		case 'cupboard':
			return addressOf({ station: 'cupboard', rig: null, run: null });
		default:
			return addressOf({ station: 'weeks', rig: null, run: null });
	}
}

/** Whether somebody looks for something and does not write a run. */
export const looksFor = (text: string): boolean => text.trim().length >= 2 && !/>|→|\n/.test(text);
