/** A part of one's own: every figure in it, wherever it stands, and the part with one of them changed. */
import type { Schemas } from '../api/client';

type Part = Schemas['Part'];
type Tree = { [key: string]: unknown };

/** One figure of a part in the unit shown: a value, or a likely and a worst size of unknown sign. */
export interface PartFigure {
	path: string[];
	/** Where it stands, in words. */
	where: string;
	field: string;
	unit: string;
	kind: 'value' | 'spread';
	first: number;
	second: number | null;
	source: string;
}

interface Unit {
	end: string;
	unit: string;
	/** Shown as so many of the unit for one of the file's. */
	scale: number;
	quantity: string;
}

/** Longest first, so that ohm_per_m is not taken for m. */
const UNITS: Unit[] = [
	{ end: '_ohm_per_m', unit: 'Ω/m', scale: 1, quantity: 'resistance' },
	{ end: '_f_per_m', unit: 'pF/m', scale: 1e12, quantity: 'capacitance' },
	{ end: '_h_per_m', unit: 'µH/m', scale: 1e6, quantity: 'inductance' },
	{ end: '_dbu', unit: 'dBu', scale: 1, quantity: 'level' },
	{ end: '_db', unit: 'dB', scale: 1, quantity: '' },
	{ end: '_hz', unit: 'Hz', scale: 1, quantity: 'frequency' },
	{ end: 'ohm', unit: 'Ω', scale: 1, quantity: 'resistance' },
	{ end: 'volt', unit: 'V', scale: 1, quantity: 'voltage' },
	{ end: '_v', unit: 'V', scale: 1, quantity: 'voltage' },
	{ end: 'ampere', unit: 'mA', scale: 1e3, quantity: 'current' },
	{ end: '_a', unit: 'mA', scale: 1e3, quantity: 'current' },
	{ end: 'henry', unit: 'H', scale: 1, quantity: 'inductance' },
	{ end: '_h', unit: 'H', scale: 1, quantity: 'inductance' },
	{ end: 'farad', unit: 'nF', scale: 1e9, quantity: 'capacitance' },
	{ end: '_f', unit: 'nF', scale: 1e9, quantity: 'capacitance' }
];
const NO_UNIT: Unit = { end: '', unit: '', scale: 1, quantity: '' };
const unitOf = (field: string): Unit => UNITS.find(({ end }) => field.endsWith(end)) ?? NO_UNIT;

/** "z_differential_ohm" as "differential impedance". */
function fieldWords(field: string): string {
	const { end, quantity } = unitOf(field);
	const stem = field
		.slice(0, field.length - end.length)
		.replaceAll('_', ' ')
		.trim();
	const impedance = stem === 'z' || stem.startsWith('z ');
	const words = impedance ? `${stem.slice(2)} impedance` : `${stem} ${quantity}`;
	return words.trim();
}

/** Six digits are more than anybody measures. */
const shown = (value: number, scale: number): number => Number((value * scale).toPrecision(6));

const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null;

export function figuresOf(part: Part): PartFigure[] {
	const found: PartFigure[] = [];
	const walk = (node: unknown, path: string[]): void => {
		if (Array.isArray(node)) node.forEach((one, index) => walk(one, [...path, String(index)]));
		else if (isTree(node)) {
			if (typeof node.source === 'string' && typeof node.value === 'number') add(node, path, 'value');
			else if (typeof node.source === 'string' && typeof node.likely === 'number') add(node, path, 'spread');
			else for (const [key, one] of Object.entries(node)) walk(one, [...path, key]);
		}
	};
	const add = (node: Tree, path: string[], kind: PartFigure['kind']): void => {
		const field = path[path.length - 1] ?? '';
		const unit = unitOf(field);
		found.push({
			path,
			where: wordsFor(path.slice(0, -1)),
			field: fieldWords(field),
			unit: unit.unit,
			kind,
			first: shown(Number(kind === 'value' ? node.value : node.likely), unit.scale),
			second: kind === 'spread' ? shown(Number(node.worst), unit.scale) : null,
			source: String(node.source)
		});
	};
	walk(part, []);
	return found;
}

/** "input 2, mode 1": places counted as people count. */
const wordsFor = (path: string[]): string =>
	path
		.reduce<string[]>((words, one) => {
			const last = words.length - 1;
			if (/^\d+$/.test(one)) words[last] = `${words[last]?.replace(/s$/, '')} ${Number(one) + 1}`;
			else words.push(one.replaceAll('_', ' '));
			return words;
		}, [])
		.join(', ');

/** The part with one figure replaced; what was there by default gives way to what somebody entered. */
export function withFigure(part: Part, figure: PartFigure, first: number, second: number | null): Part {
	const copy = structuredClone(part);
	let node: unknown = copy;
	for (const step of figure.path.slice(0, -1)) node = (node as Tree)[step];
	const source = 'entered here';
	const field = figure.path[figure.path.length - 1] ?? '';
	const { scale } = unitOf(field);
	const [one, other] = [first / scale, (second ?? first) / scale];
	(node as Tree)[field] =
		figure.kind === 'value' ? { value: one, source } : { likely: one, worst: other, source };
	return copy;
}

/** An id that no part has yet. */
export function freeId(name: string, taken: ReadonlySet<string>): string {
	const stem =
		name
			.toLowerCase()
			.replaceAll(/[^a-z0-9]+/g, '-')
			.replaceAll(/^-+|-+$/g, '')
			.slice(0, 50) || 'part';
	const own = `own-${stem}`;
	let id = own;
	for (let number = 2; taken.has(id); number += 1) id = `${own}-${number}`;
	return id;
}
