/** A lead on the tester as it is drawn: its plugs left and right, what should be joined, what was read. */
import type { Schemas } from '../api/client';

export type LeadOnBench = Schemas['LeadOnBench'];
export type Reading = Schemas['ContactReading'];
export type State = Reading['state'];

export interface Dot {
	/** plug.contact */
	id: string;
	words: string;
	x: number;
	y: number;
	plug: string;
	side: 'left' | 'right';
}

export interface PlugBox {
	label: string;
	x: number;
	y: number;
	height: number;
	side: 'left' | 'right';
}

/** open: read as not joined, where it should be. */
export type Look = 'expected' | 'good' | 'wrong' | 'open' | 'flickers';

export interface Wire {
	from: Dot;
	to: Dot;
	look: Look;
}

export interface BenchDrawing {
	dots: Dot[];
	plugs: PlugBox[];
	wires: Wire[];
	height: number;
}

export const WIDTH = 380;
/** Larger pieces are typed line by line. */
export const MOST_DRAWN = 32;
const LEFT_X = 84;
const ROW = 30;
const HEAD = 26;
const GAP = 14;

const CONTACTS: Record<string, string> = {
	T: 'tip',
	R: 'ring',
	S: 'sleeve',
	R1: 'ring 1',
	R2: 'ring 2',
	plus: '+',
	minus: '−'
};

const key = (a: string, b: string): string => [a, b].sort().join(' ');

/** By pair of contacts; a later reading of a pair replaces an earlier one. */
export const statesOf = (readings: readonly Reading[]): Map<string, State> =>
	new Map(readings.map(({ a, b, state }) => [key(a, b), state]));

export function draw(bench: LeadOnBench, readings: readonly Reading[]): BenchDrawing {
	const left = bench.plugs.filter(({ side }) => side !== 'out');
	const right = bench.plugs.filter(({ side }) => side === 'out');
	if (left.length === 0) left.push(...right.splice(0, 1));
	if (right.length === 0) right.push(...left.splice(1));
	const dots: Dot[] = [];
	const plugs: PlugBox[] = [];
	const place = (side: 'left' | 'right', among: typeof left): number => {
		let y = 0;
		for (const plug of among) {
			const x = side === 'left' ? LEFT_X : WIDTH - LEFT_X;
			plugs.push({ label: plug.label, x, y, height: HEAD + plug.contacts.length * ROW, side });
			plug.contacts.forEach((contact, at) =>
				dots.push({
					id: `${plug.id}.${contact}`,
					words: CONTACTS[contact] ?? contact,
					x,
					y: y + HEAD + at * ROW + ROW / 2,
					plug: plug.id,
					side
				})
			);
			y += HEAD + plug.contacts.length * ROW + GAP;
		}
		return y;
	};
	const height = Math.max(place('left', left), place('right', right));
	return { dots, plugs, wires: wiresOf(bench, readings, dots), height };
}

function wiresOf(bench: LeadOnBench, readings: readonly Reading[], dots: readonly Dot[]): Wire[] {
	const at = new Map(dots.map((dot) => [dot.id, dot]));
	const states = statesOf(readings);
	const wires: Wire[] = [];
	const should = new Set<string>();
	const add = (a: string, b: string, look: Look): void => {
		const from = at.get(a);
		const to = at.get(b);
		if (from && to) wires.push({ from, to, look });
	};
	for (const group of bench.joined)
		group.forEach((a, place) =>
			group.slice(place + 1).forEach((b) => {
				should.add(key(a, b));
				const state = states.get(key(a, b));
				if (state === undefined) add(a, b, 'expected');
				else add(a, b, state === 'joined' ? 'good' : state);
			})
		);
	for (const { a, b } of readings) {
		const state = states.get(key(a, b));
		if (should.has(key(a, b)) || state === undefined || state === 'open') continue;
		add(a, b, state === 'joined' ? 'wrong' : 'flickers');
	}
	return wires;
}

/** What a tap on two contacts makes of their reading: joined, none, comes and goes, not read. */
export function toggled(readings: readonly Reading[], a: string, b: string): Reading[] {
	const NEXT: Record<State, State | null> = { joined: 'open', open: 'flickers', flickers: null };
	const state = statesOf(readings).get(key(a, b));
	const others = readings.filter((each) => key(each.a, each.b) !== key(a, b));
	const next = state === undefined ? 'joined' : NEXT[state];
	return next === null ? others : [...others, { a, b, state: next, ohm: null }];
}

/** How the piece would stand after it is saved. */
export function outcome(diagnosis: Schemas['Diagnosis'], chosen: number | null): string {
	const { condition } = (chosen === null ? null : diagnosis.explanations[chosen]) ?? diagnosis;
	return condition === null ? 'Save what was read' : `Save: ${condition}`;
}
