/** Lines between contacts, and the components that interrupt them. */
import { at } from './strip-places';
import type { Component, Drawing, Line, Look, Span, Spot } from './strip-types';

const COIL = 14;
const HALF = 13;
const BESIDE = 22;

/** From centre to centre: straight on one level, an S between levels, a bracket between contacts of one side. */
export function linePath(a: Spot, b: Spot, span: Span | undefined): string {
	const start = `M${round(a.x)} ${round(a.y)}`;
	const end = `${round(b.x)} ${round(b.y)}`;
	if (Math.abs(a.y - b.y) < 0.05) return `${start} L${end}`;
	if (Math.abs(a.x - b.x) < 0.05) {
		const inward = span && Math.abs(a.x - span.right) < 1 ? -1 : 1;
		const x = round(a.x + inward * (20 + Math.min(60, Math.abs(a.y - b.y) / 6)));
		return `${start} C${x} ${round(a.y)} ${x} ${round(b.y)} ${end}`;
	}
	const middle = round((a.x + b.x) / 2);
	return `${start} C${middle} ${round(a.y)} ${middle} ${round(b.y)} ${end}`;
}

const round = (value: number): number => Math.round(value * 10) / 10;

/** How far a component and the label over it reach from its centre. */
interface Reach {
	above: number;
	below: number;
}

const reachOf = (poles: number): Reach => (poles === 4 ? { above: 26, below: 16 } : { above: 16, below: 6 });

/** A place for a component near `wanted` where no other one, nor its label, stands. */
function free(taken: (Spot & Reach)[], wanted: Spot, poles: number): Spot {
	const mine = reachOf(poles);
	let { x, y } = wanted;
	const meets = (other: Spot & Reach): boolean =>
		Math.abs(other.x - x) < 30 &&
		(other.y <= y ? y - other.y < other.below + mine.above : other.y - y < mine.below + other.above);
	while (taken.some(meets)) {
		y += BESIDE / 2;
		x += 3;
	}
	taken.push({ x, y, ...mine });
	return { x, y };
}

/**
 * Components with their lead-ins. A lead-in ends at the component's own edge, so nothing is joined through it;
 * two-pole components lie level, with a terminal on either side.
 */
export function componentsOf(
	drawing: Drawing,
	spots: Map<string, Spot>,
	spans: Map<string, Span>,
	look: (point: string) => Look
): { components: Component[]; leadIns: Line[] } {
	const components: Component[] = [];
	const leadIns: Line[] = [];
	const taken: (Spot & Reach)[] = [];
	drawing.elements.forEach((element) => {
		const points = element.points.map((point) => at(spots, point));
		const [first, second] = points;
		const span = spans.get(element.owner);
		if (!first || !second || !span) return;
		const poles = points.length;
		const levels = poles === 4 ? points.slice(2) : points;
		const centre = free(
			taken,
			{
				x: (span.left + span.right) / 2 + aside(first, second, span, poles),
				y: levels.reduce((sum, each) => sum + each.y, 0) / levels.length
			},
			poles
		);
		const corners = poles === 4 ? cornersOf(centre, points) : terminalsOf(centre, first, second);
		corners.forEach((corner, index) => {
			const name = element.points[index] ?? '';
			leadIns.push({
				path: linePath(at(spots, name), corner, span),
				look: look(name),
				kind: 'lead-in',
				owner: element.owner
			});
		});
		components.push({
			type: element.type,
			at: centre,
			turn: 0,
			label: element.label,
			owner: element.owner
		});
	});
	return { components, leadIns };
}

/** What lies across one side's contacts stands nearer to that side, out of the way of what lies in line. */
function aside(first: Spot, second: Spot, span: Span, poles: number): number {
	if (poles !== 2 || Math.abs(first.x - second.x) > 1) return 0;
	const room = (span.right - span.left) / 2;
	return (Math.abs(first.x - span.right) < 1 ? 1 : -1) * Math.min(room * 0.45, Math.max(0, room - 30));
}

function terminalsOf(centre: Spot, first: Spot, second: Spot): Spot[] {
	const turned = first.x > second.x ? -1 : 1;
	return [
		{ x: centre.x - turned * HALF, y: centre.y },
		{ x: centre.x + turned * HALF, y: centre.y }
	];
}

/** Four terminals: the first pair on the left unless it stands to the right of the second. */
function cornersOf(centre: Spot, points: Spot[]): Spot[] {
	const middle = (index: number) => ((points[index]?.x ?? 0) + (points[index + 1]?.x ?? 0)) / 2;
	const side = middle(0) > middle(2) ? -1 : 1;
	return [-side, side].flatMap((x) => [-1, 1].map((y) => ({ x: centre.x + x * 9, y: centre.y + y * COIL })));
}
