/** House rules and loudness of a venue, and the edit that says them. */
import type { Schemas } from '../api/client';
import { toMetres, type LengthUnit } from './format';

type House = Schemas['HouseRules'];

export const SCREENS: Record<House['screens'], string> = {
	'both-ends': 'joined at both ends',
	'lifted-at-receiver': 'lifted at the receiving end',
	'through-capacitor': 'through a capacitor at the receiving end'
};

export const PASSIVE_Y: Record<House['passive_y'], string> = {
	'with-resistors': 'only through resistors',
	never: 'never'
};

export interface HouseChange {
	unbalanced_limit_m?: number;
	screens?: House['screens'];
	passive_y?: House['passive_y'];
	programme_db_spl?: number | null;
	noise_dba?: number | null;
}

/** What somebody typed for a length; null where it is none, so that what was saved stands. */
export function lengthSaid(text: string, unit: LengthUnit): HouseChange | null {
	const length = Number(text);
	return text.trim() && length > 0 ? { unbalanced_limit_m: toMetres(length, unit) } : null;
}

/** An empty field takes the answer back. */
export const levelSaid = (text: string): number | null => (text.trim() ? Number(text) : null);

export function houseEdit(rig: Schemas['Rig'], change: HouseChange): Schemas['Edit'] {
	const { house, programme_db_spl, noise_dba } = rig.venue;
	const limit =
		change.unbalanced_limit_m === undefined
			? house.unbalanced_limit_m
			: { value: change.unbalanced_limit_m, low: null, high: null, source: 'house rule' };
	return {
		label: 'House rules',
		ops: [
			{
				op: 'set_house',
				house: {
					unbalanced_limit_m: limit,
					screens: change.screens ?? house.screens,
					passive_y: change.passive_y ?? house.passive_y
				},
				programme_db_spl: change.programme_db_spl === undefined ? programme_db_spl : change.programme_db_spl,
				noise_dba: change.noise_dba === undefined ? noise_dba : change.noise_dba
			}
		]
	};
}
