/** What a remedy does, in figures worth reading. */
import type { Schemas } from '../api/client';
import { number } from './format';

/** The server tells hum up to so far under the programme; beyond that it is nobody's concern. */
const TOLD_DB = 90;

const below = (db: number): string => (db >= TOLD_DB ? `over ${number(db, 0)}` : number(db));

/** Hum before and after, where it changes. */
export function humChange(effect: Schemas['Effect']): [string, string] | null {
	const [before, after] = [effect.before.hum_below_db, effect.after.hum_below_db];
	if (before === null || after === null || before === after) return null;
	return [below(before), below(after)];
}

/** What happens to another run: its grade where that changes, else its hum, else that its level moves. */
export function otherWords(effect: Schemas['Effect']): string {
	if (effect.before.grade !== effect.after.grade) return `${effect.before.grade} → ${effect.after.grade}`;
	const hum = humChange(effect);
	return hum ? `hum ${hum[0]} → ${hum[1]} dB` : 'level moves';
}

/** All remedies in their order, but what was shown first stays on top while nothing ends better than it does. */
export function firstOnTop(
	first: readonly Schemas['Remedy'][],
	all: readonly Schemas['Remedy'][]
): readonly Schemas['Remedy'][] {
	const shown = all.find((one) => one.helps && one.id === first[0]?.id);
	const best = all.find((one) => one.helps);
	if (!shown || shown.effects[0]?.after.grade !== best?.effects[0]?.after.grade) return all;
	return [shown, ...all.filter((one) => one !== shown)];
}
