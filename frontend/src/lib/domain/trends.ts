/** What the log says over the weeks, as it is drawn and said. */
import type { Schemas } from '../api/client';

export type HumCurve = Schemas['HumCurve'];
type Point = HumCurve['points'][number];

const MINUTE_MS = 60_000;
const ROOM_DB = 3;

export interface DrawnCurve {
	measured: { x: number; y: number; point: Point }[];
	computed: { x: number; y: number }[];
	/** Of the lower and the upper edge. */
	low_dbu: number;
	high_dbu: number;
}

/** Points in a box, by time from left to right and by level from below. */
export function drawCurve(points: readonly Point[], width: number, height: number): DrawnCurve {
	const levels = points.flatMap(({ value_dbu, predicted_dbu }) => [value_dbu, predicted_dbu ?? value_dbu]);
	const [low, high] = [Math.min(...levels) - ROOM_DB, Math.max(...levels) + ROOM_DB];
	const times = points.map(({ at }) => Date.parse(at));
	const [first, last] = [Math.min(...times), Math.max(...times)];
	const x = (at: string): number =>
		last === first ? width / 2 : ((Date.parse(at) - first) / (last - first)) * width;
	const y = (level: number): number => height - ((level - low) / (high - low)) * height;
	return {
		measured: points.map((point) => ({ x: x(point.at), y: y(point.value_dbu), point })),
		computed: points.flatMap(({ at, predicted_dbu }) =>
			predicted_dbu === null ? [] : [{ x: x(at), y: y(predicted_dbu) }]
		),
		low_dbu: low,
		high_dbu: high
	};
}

export const lineOf = (points: readonly { x: number; y: number }[]): string =>
	points.map(({ x, y }, at) => `${at === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(' ');

/** How long it took, and how long before the doors it was ready. */
export function dayWords(day: Schemas['WorkDay']): string {
	const took = Math.round((Date.parse(day.ended_at) - Date.parse(day.began_at)) / MINUTE_MS);
	const said = [`${took} min`, `${day.good} good`];
	if (day.wrong > 0) said.push(`${day.wrong} left wrong`);
	if (day.doors_at !== null) {
		const left = Math.round((Date.parse(day.doors_at) - Date.parse(day.ended_at)) / MINUTE_MS);
		said.push(left >= 0 ? `done ${left} min before the doors` : `done ${-left} min after the doors`);
	}
	return said.join(', ');
}
