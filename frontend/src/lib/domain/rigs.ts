/** Rigs as documents: a new one, what a copy is called, and the edit that says one thing about a rig as a whole. */
import type { Schemas } from '../api/client';
import { setField } from './ops';

export type RigField = 'name' | 'occasion' | 'venue_name' | 'length_unit' | 'mains_hz' | 'alignment';
type Alignment = Schemas['Alignment'];

/** What is asked before there is a rig at all. */
export interface Beginning {
	name: string;
	occasion: string;
	venue: string;
	mains_hz: 50 | 60;
	length_unit: 'm' | 'ft';
}

/** An empty rig in the open format; a taken id gets its number from the server. */
export function newRigFile(said: Beginning): string {
	return JSON.stringify({
		format: 'ruvak-rig',
		version: 2,
		id: idFrom(said.name),
		name: said.name.trim(),
		occasion: said.occasion.trim(),
		venue: { name: said.venue.trim(), mains_hz: said.mains_hz },
		length_unit: said.length_unit
	});
}

/** Letters and figures of a name, so that addresses and file names can be read. */
export function idFrom(name: string): string {
	const plain = name
		.normalize('NFKD')
		.toLowerCase()
		.replace(/\p{Mark}/gu, '')
		.replace(/[^a-z0-9]+/g, '-');
	return plain.replace(/^-+/, '').slice(0, 48).replace(/-+$/, '') || 'rig';
}

/** The same name with the next number behind it. */
export function copyName(name: string, taken: readonly string[]): string {
	const stem = name.replace(/ \d+$/, '').slice(0, 110);
	for (let number = 2; ; number += 1) {
		const next = `${stem} ${number}`;
		if (!taken.includes(next)) return next;
	}
}

export const ALIGNMENTS: Record<string, string> = {
	'smpte-rp-155': '+4 dBu is −20 dBFS (SMPTE RP 155)',
	'ebu-r-68': '0 dBu is −18 dBFS (EBU R 68)'
};

/** Which of the two schools an alignment is; null for one of somebody's own. */
export function alignmentKey(one: Alignment | undefined): string | null {
	if (!one || (one.full_scale_dbu === 24 && one.nominal_dbu === 4)) return 'smpte-rp-155';
	return one.full_scale_dbu === 18 && one.nominal_dbu === 0 ? 'ebu-r-68' : null;
}

const LABELS: Record<RigField, string> = {
	name: "The rig's name",
	occasion: 'The occasion',
	venue_name: "The venue's name",
	length_unit: 'What lengths are told in',
	mains_hz: 'Mains frequency',
	alignment: 'Digital alignment'
};

export function rigEdit(name: RigField, value: string | number): Schemas['Edit'] {
	const ofVenue = name === 'venue_name' || name === 'mains_hz';
	const place = setField(ofVenue ? 'venue' : 'rig', null, name === 'venue_name' ? 'name' : name);
	return { label: LABELS[name], ops: [{ ...place, value }] };
}

/** Lines that make a small rig from nothing. */
export function examples(unit: 'm' | 'ft'): string[] {
	const [near, far] = unit === 'ft' ? ['30 ft', '60 ft'] : ['10 m', '20 m'];
	return [
		`lead vocal > small desk 1, ${near}`,
		'laptop > small desk 11/12',
		`small desk main L/R > speakers 1-2, ${far}`
	];
}
