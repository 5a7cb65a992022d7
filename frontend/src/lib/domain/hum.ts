/** Disturbances in words, and on bars: what causes them, where it comes from. */
import type { Schemas } from '../api/client';
import { nameOf } from './names';

type Cause = Schemas['CauseShare'];

const CAUSE_WORDS: Record<Cause['code'], (owner: string) => string> = {
	earth_measured: () => 'earth voltages as measured',
	earth: (owner) => `earth of ${owner}`,
	field: () => 'magnetic field of the mains',
	mains_pair: (owner) => `mains cable along ${owner}`,
	touch: (owner) => `two-pin supply of ${owner}`,
	electric: (owner) => (owner === '' ? 'electric field of the mains' : `live mains beside ${owner}`),
	computer: (owner) => `computer noise of ${owner}`,
	supply_fault: (owner) => `failing supply of ${owner}`
};

/** An outlet nobody named is told by the device that is in it. */
export function causeWords(rig: Schemas['Rig'], cause: Cause): string {
	const [, unnamed] = cause.owner.split('somewhere:');
	const called = cause.owner === 'venue' ? '' : nameOf(rig, unnamed ?? cause.owner);
	return CAUSE_WORDS[cause.code](unnamed ? `${called}’s outlet` : called);
}

type Mechanism = Schemas['MechanismShare']['code'];

/** By which way hum gets in, and what is done about that way. */
export const MECHANISMS: Record<Mechanism, { words: string; cure: string }> = {
	direct: {
		words: 'in series with the programme',
		cure: 'A balanced line, or an isolator in it.'
	},
	leg_imbalance: {
		words: 'unequal legs',
		cure: 'An output whose legs have equal impedance, or a transformer at the input.'
	},
	rejection: {
		words: 'the input’s own rejection',
		cure: 'An input that rejects more, or a transformer before it.'
	},
	pin1: {
		words: 'current in pin 1',
		cure: 'Keep current out of that screen, or have pin 1 bonded to the case where it comes in.'
	},
	screen_coupling: {
		words: 'current in the lead’s screen',
		cure: 'Less current in the screen, or a lead with a braided one.'
	},
	field_mismatch: {
		words: 'the electric field, one core more than the other',
		cure: 'A screened lead, or this one away from mains.'
	}
};

/** Outlets of the rig that are only assumed: devices with an earthed plug whose outlet nobody named. */
export const assumedOutlets = (hum: Schemas['Hum']): number =>
	hum.causes.filter((cause) => cause.owner.startsWith('somewhere:')).length;

export interface Bar {
	x: number;
	width: number;
	hz: number;
	likely: number;
	worst: number;
}

/** Tones as bars over a floor, side by side in their order: heights from 0 to 1. */
export function bars(hum: Schemas['Hum'], floorDbu: number, topDbu: number): Bar[] {
	const height = (level: number): number =>
		Math.min(1, Math.max(0, (level - floorDbu) / (topDbu - floorDbu)));
	const { frequencies_hz = [], likely_dbu = [], worst_dbu = [] } = hum.tones;
	const width = 1 / Math.max(1, frequencies_hz.length);
	return frequencies_hz.map((hz, index) => ({
		x: index * width,
		width,
		hz,
		likely: height(likely_dbu[index] ?? floorDbu),
		worst: height(worst_dbu[index] ?? floorDbu)
	}));
}
