/** Which of a run's inputs is told in figures, and what each is called. */
import type { Schemas } from '../api/client';
import { dbu, watt } from './format';
import { levelsOf } from './ladder';
import { nameOf } from './names';

type InputResult = Schemas['InputResult'];

export const keyOf = (one: InputResult): string => `${one.gear}.${one.input}`;

/** The one asked for; else the one its worst finding is about; else the first. */
export function shownInput(run: Schemas['RunAnalysis'], asked: string | null): InputResult | undefined {
	const inputs = run.result.inputs;
	const at = (key: string | null | undefined) => inputs.find((one) => keyOf(one) === key);
	return at(asked) ?? at(run.findings[0]?.subject) ?? inputs[0];
}

/** Whether nothing arrives yet, because a microphone's power is off. */
export const isUnpowered = (run: Schemas['RunAnalysis']): boolean =>
	run.findings.some((one) => one.code === 'phantom_missing');

/** Its hum as it sounds, A-weighted; a loudspeaker has none of its own. */
export const humOf = (input: InputResult | undefined): number | null =>
	input?.loudspeaker ? null : (input?.hum?.weighted_dbu ?? null);

/** By its label alone, or by its device where the run goes to several. */
export function inputName(rig: Schemas['Rig'], run: Schemas['RunAnalysis'], one: InputResult): string {
	const inputs = run.result.inputs;
	if (new Set(inputs.map((each) => each.gear)).size === 1) return one.label;
	const mine = inputs.filter((each) => each.gear === one.gear);
	const name = nameOf(rig, one.gear);
	return mine.length === 1 ? name : `${name}, ${one.label}`;
}

/** What gets there: of a loudspeaker the watts of the loudest passages, else the level. */
export function arrivesWords(one: InputResult): string {
	if (one.loudspeaker) return watt(one.loudspeaker.peak_w);
	const levels = levelsOf(one);
	return levels ? dbu(levels.arriving_dbu) : '';
}
