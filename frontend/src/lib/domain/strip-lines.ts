/** Lines between contacts, and the components that interrupt them. */
import { at } from './strip-places';
import type { Component, Drawing, Line, Look, Span, Spot } from './strip-types';

const COIL = 14;

/** From centre to centre: straight on one level, an S between levels, a bracket between contacts of one side. */
export function linePath(a: Spot, b: Spot, span: Span | undefined): string {
	const start = `M${round(a.x)} ${round(a.y)}`;
	const end = `${round(b.x)} ${round(b.y)}`;
	if (a.y === b.y) return `${start} L${end}`;
	if (a.x === b.x) {
		const inward = span && Math.abs(a.x - span.right) < 1 ? -1 : 1;
		const x = round(a.x + inward * (20 + Math.abs(a.y - b.y) / 6));
		return `${start} C${x} ${round(a.y)} ${x} ${round(b.y)} ${end}`;
	}
	const middle = round((a.x + b.x) / 2);
	return `${start} C${middle} ${round(a.y)} ${middle} ${round(b.y)} ${end}`;
}

const round = (value: number): number => Math.round(value * 10) / 10;

export function componentsOf(
	drawing: Drawing,
	spots: Map<string, Spot>,
	spans: Map<string, Span>,
	look: (point: string) => Look
): { components: Component[]; leadIns: Line[] } {
	const components: Component[] = [];
	const leadIns: Line[] = [];
	const leadIn = (point: string, to: Spot, owner: string): void => {
		leadIns.push({
			path: linePath(at(spots, point), to, spans.get(owner)),
			look: look(point),
			kind: 'lead-in',
			owner
		});
	};
	drawing.elements.forEach((element) => {
		const [first, second, third, fourth] = element.points.map((point) => at(spots, point));
		const names = element.points;
		if (!first || !second) return;
		const span = spans.get(element.owner);
		if (element.type === 'transformer' && third && fourth && span) {
			const centre = { x: (span.left + span.right) / 2, y: (third.y + fourth.y) / 2 };
			const corners = [-1, 1].flatMap((x) =>
				[-1, 1].map((y) => ({ x: centre.x + x * 9, y: centre.y + y * COIL }))
			);
			corners.forEach((corner, index) => leadIn(names[index] ?? '', corner, element.owner));
			components.push({
				type: element.type,
				at: centre,
				turn: 0,
				label: element.label,
				owner: element.owner
			});
			return;
		}
		const centre = { x: (first.x + second.x) / 2, y: (first.y + second.y) / 2 };
		const angle = Math.atan2(second.y - first.y, second.x - first.x);
		const offset = { x: 13 * Math.cos(angle), y: 13 * Math.sin(angle) };
		const ends = [
			{ x: centre.x - offset.x, y: centre.y - offset.y },
			{ x: centre.x + offset.x, y: centre.y + offset.y }
		];
		ends.forEach((end, index) => {
			const from = at(spots, names[index] ?? '');
			const path = `M${round(from.x)} ${round(from.y)} L${round(end.x)} ${round(end.y)}`;
			leadIns.push({ path, look: look(names[index] ?? ''), kind: 'lead-in', owner: element.owner });
		});
		const turn = (angle * 180) / Math.PI;
		components.push({ type: element.type, at: centre, turn, label: element.label, owner: element.owner });
	});
	return { components, leadIns };
}
