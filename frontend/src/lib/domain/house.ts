/** House rules and loudness of a venue, and the edit that says one of them. */
import type { Schemas } from '../api/client';
import { toMetres, type LengthUnit } from './format';

type House = Schemas['HouseRules'];
type SetHouse = Schemas['SetHouse'];

export const SCREENS: Record<House['screens'], string> = {
	'both-ends': 'joined at both ends',
	'lifted-at-receiver': 'lifted at the receiving end',
	'through-capacitor': 'through a capacitor at the receiving end'
};

export const PASSIVE_Y: Record<House['passive_y'], string> = {
	'with-resistors': 'only through resistors',
	never: 'never'
};

const LABELS: Record<SetHouse['field'], string> = {
	unbalanced_limit_m: 'House rule: longest unbalanced run',
	screens: 'House rule: screens',
	passive_y: 'House rule: two outputs on one input',
	programme_db_spl: 'How loud programme is',
	noise_dba: 'How quiet the room is'
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
export function houseEdit(field: SetHouse['field'], value: number | string | null): Schemas['Edit'] {
	return { label: LABELS[field], ops: [{ op: 'set_house', field, value }] };
}
