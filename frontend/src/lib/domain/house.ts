/** House rules of a venue and what else is said of it in a field, and the edit that says one of them. */
import type { Schemas } from '../api/client';
import { setField } from './ops';
import { toMetres, type LengthUnit } from './format';
import type { TakenBand } from './radio';

type House = Schemas['HouseRules'];
type OfVenue = 'programme_db_spl' | 'noise_dba' | 'weather' | 'taken_mhz';
export type HouseField = keyof House | OfVenue;

const LABELS: Record<HouseField, string> = {
	unbalanced_limit_m: 'House rule: longest unbalanced run',
	screens: 'House rule: screens',
	passive_y: 'House rule: two outputs on one input',
	power_order: 'House rule: switching on',
	gain: 'House rule: gain of a channel',
	speaker_volume: 'House rule: volume of powered speakers',
	computer_volume: 'House rule: volume of laptops and phones',
	programme_db_spl: 'How loud programme is',
	noise_dba: 'How quiet the room is',
	weather: 'Where it plays',
	taken_mhz: 'Frequencies taken'
};

const OF_VENUE: Record<OfVenue, true> = {
	programme_db_spl: true,
	noise_dba: true,
	weather: true,
	taken_mhz: true
};

/** An empty field takes the answer back. */
export function numberSaid(text: string): number | null {
	return text.trim() ? Number(text) : null;
}

export function lengthSaid(text: string, unit: LengthUnit): number | null {
	const length = numberSaid(text);
	return length === null ? null : toMetres(length, unit);
}

/** One thing at a time: what somebody else, or the field before, said meanwhile stands. */
export function houseEdit(name: HouseField, value: number | string | null | TakenBand[]): Schemas['Edit'] {
	const place = name in OF_VENUE ? setField('venue', null, name) : setField('venue', null, 'house', name);
	return { label: LABELS[name], ops: [{ ...place, value }] };
}
