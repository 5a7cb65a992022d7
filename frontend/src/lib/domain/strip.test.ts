import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { layOut } from './strip';
import type { StripLayout } from './strip-types';

type Drawing = Schemas['RunDrawing'];
const SPACE = { width: 620, top: 90, left: 34, right: 104 };

function connector(end: string, form: Schemas['Form'], contacts: string[], lane = 0) {
	return { end, label: end, form, lane, contacts: contacts.map((name) => `${end}.${name}`) };
}

const gear = (owner: string, column: number) => ({
	id: owner,
	owner,
	installed: false,
	kind: 'gear' as const,
	name: owner,
	length_m: null,
	column
});
const TRS = ['T', 'R', 'S'];
const XLR = ['2', '3', '1'];

/** Source, one adapter wired as told, and as many inputs as it has outputs. */
function drawing(wires: [string, string][], elements: Drawing['elements'] = [], outs = 1): Drawing {
	const lanes = Array.from({ length: outs }, (_, index) => index);
	const mates = (a: string, b: string, names: string[]) =>
		names.map((name) => ({ kind: 'mate' as const, a: `${a}.${name}`, b: `${b}.${name}`, owner: 'run' }));
	const links = [
		...wires.map(([a, b]) => ({ kind: 'wire' as const, a: `piece.${a}`, b: `piece.${b}`, owner: 'piece' })),
		...mates('src.out', 'piece.in', TRS),
		...lanes.flatMap((lane) => mates(`piece.out${lane}`, `dst.in${lane}`, XLR))
	];
	const pieces = [
		{ ...gear('src', 0), ins: [], outs: [connector('src.out', 'trs35-socket', TRS)] },
		{
			...gear('piece', 1),
			kind: 'adapter' as const,
			ins: [connector('piece.in', 'trs35-plug', TRS)],
			outs: lanes.map((lane) => connector(`piece.out${lane}`, 'xlr3-male', XLR, lane))
		},
		{
			...gear('dst', 2),
			ins: lanes.map((lane) => connector(`dst.in${lane}`, 'xlr3-female', XLR, lane)),
			outs: []
		}
	];
	return { pieces, links, elements, conductors: [], listening: [] };
}

/** Contacts joined by lines whose ends meet, read from the paths alone. */
function joined(layout: StripLayout): Set<string>[] {
	const key = (x: number, y: number) => `${x.toFixed(1)},${y.toFixed(1)}`;
	const groups = new Map<string, Set<string>>();
	const at = (spot: string) => groups.get(spot) ?? groups.set(spot, new Set([spot])).get(spot) ?? new Set();
	for (const line of layout.lines) {
		const numbers = line.path.match(/-?[\d.]+/g)?.map(Number) ?? [];
		const [a, b] = [
			at(key(numbers[0] ?? 0, numbers[1] ?? 0)),
			at(key(numbers.at(-2) ?? 0, numbers.at(-1) ?? 0))
		];
		const both = new Set([...a, ...b]);
		for (const spot of both) groups.set(spot, both);
	}
	const names = new Map(layout.contacts.map((contact) => [key(contact.x, contact.y), contact.id]));
	const found = new Set(groups.values());
	return [...found].map((group) => new Set([...group].flatMap((spot) => names.get(spot) ?? [])));
}

const together = (layout: StripLayout, ...ids: string[]) =>
	joined(layout).some((group) => ids.every((id) => group.has(id)));

describe('a strip', () => {
	it('joins exactly what is wired', () => {
		const layout = layOut(
			drawing([
				['in.T', 'out0.2'],
				['in.R', 'out0.3'],
				['in.S', 'out0.1']
			]),
			SPACE
		);
		expect(together(layout, 'src.out.T', 'dst.in0.2')).toBe(true);
		expect(together(layout, 'src.out.T', 'dst.in0.3')).toBe(false);
		expect(joined(layout)).toHaveLength(3);
	});

	it('draws a swap as a crossing, not as a join', () => {
		const layout = layOut(
			drawing([
				['in.T', 'out0.3'],
				['in.R', 'out0.2'],
				['in.S', 'out0.1']
			]),
			SPACE
		);
		expect(together(layout, 'src.out.T', 'dst.in0.3')).toBe(true);
		expect(together(layout, 'src.out.T', 'src.out.R')).toBe(false);
	});

	it('merges lines where a plug ties contacts together', () => {
		const layout = layOut(
			drawing([
				['in.S', 'out0.1'],
				['out0.3', 'out0.1']
			]),
			SPACE
		);
		expect(together(layout, 'dst.in0.3', 'dst.in0.1', 'src.out.S')).toBe(true);
		const bracket = layout.lines.find((line) => line.path.includes('C') && line.kind === 'metal');
		expect(bracket?.path).toMatch(/^M/);
	});

	it('keeps a resistor from joining', () => {
		const element = {
			type: 'resistor' as const,
			owner: 'piece',
			points: ['piece.in.T', 'piece.out0.2'],
			label: '1 kΩ'
		};
		const layout = layOut(drawing([['in.S', 'out0.1']], [element]), SPACE);
		expect(together(layout, 'src.out.T', 'dst.in0.2')).toBe(false);
		expect(layout.components.map((one) => one.label)).toEqual(['1 kΩ']);
	});

	it('marks contacts that go nowhere', () => {
		const plain = drawing([['in.T', 'out0.2']]);
		const layout = layOut({ ...plain, links: plain.links.filter((link) => link.kind === 'wire') }, SPACE);
		expect(layout.contacts.filter((contact) => contact.open).map((contact) => contact.id)).toContain(
			'piece.in.R'
		);
	});

	it('gives a fork a lane of its own', () => {
		const layout = layOut(
			drawing(
				[
					['in.T', 'out0.2'],
					['in.R', 'out1.2'],
					['in.S', 'out1.1']
				],
				[],
				2
			),
			SPACE
		);
		const [first, second] = ['dst.in0.2', 'dst.in1.2'].map((id) =>
			layout.contacts.find((one) => one.id === id)
		);
		expect((second?.y ?? 0) - (first?.y ?? 0)).toBeGreaterThan(60);
		expect(layout.height).toBeGreaterThan((second?.y ?? 0) + 50);
	});

	it('never puts two contacts on one spot, however narrow', () => {
		for (const width of [200, 320, 620, 1200]) {
			const layout = layOut(drawing([['in.T', 'out0.2']], [], 2), { ...SPACE, width });
			const spots = new Set(layout.contacts.map((contact) => `${contact.x},${contact.y}`));
			expect(spots.size).toBe(layout.contacts.length);
			expect(layout.width).toBeGreaterThanOrEqual(width);
		}
	});

	it('says which point is missing when a drawing is not sound', () => {
		const broken = drawing([]);
		broken.links.push({ kind: 'wire', a: 'ghost.x', b: 'ghost.y', owner: 'ghost' });
		expect(() => layOut(broken, SPACE)).toThrow('ghost.x');
	});
});
