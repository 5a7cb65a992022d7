/** A figure's formula with its inputs as they stand beside it. */
import type { Schemas } from '../api/client';
import { number } from './format';

export type Scope = Record<string, unknown>;
type Formula = Schemas['Formula'];

/** What a path leads to; undefined where a record on the way is missing. "causes[]" goes into each of a list. */
export function at(path: string, scope: unknown): unknown {
	let found: unknown = scope;
	const names = path.split('.');
	for (const [index, name] of names.entries()) {
		if (found === null || found === undefined) return undefined;
		const key = name.replace('[]', '');
		found = (found as Record<string, unknown>)[key];
		if (name.endsWith('[]')) {
			const rest = names.slice(index + 1).join('.');
			return ((found as unknown[] | undefined) ?? []).map((one) => at(rest, one));
		}
	}
	return found;
}

/** As written by hand: true signs, a raised dot, powers of ten. */
export const typeset = (expression: string): string =>
	expression
		.replaceAll('10 ** (x / 10) for x in ', 'each 10^(x/10) of ')
		.replaceAll(' ** ', '^')
		.replaceAll('log10', 'log₁₀')
		.replaceAll('sqrt', '√')
		.replaceAll(' * ', '·')
		.replaceAll(' - ', ' − ')
		.replaceAll(' / ', '/');

export interface Given {
	symbol: string;
	words: string;
	value: string;
}

/** Its inputs in words and figures; null where one is missing. */
export function givens(formula: Formula, scope: Scope): Given[] | null {
	const found = formula.inputs.map((one) => ({ one, value: at(one.path, scope) }));
	if (found.some(({ value }) => value === null || value === undefined)) return null;
	return found.map(({ one, value }) => ({
		symbol: one.symbol,
		words: one.words,
		value: `${Array.isArray(value) ? value.map((x) => number(Number(x))).join(', ') : number(Number(value))} ${one.unit.replace('ohm', 'Ω')}`
	}));
}
