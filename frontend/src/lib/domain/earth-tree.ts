/** The building's earth as a tree in lines: what hangs on what, what is plugged in where, what was measured. */
import type { Schemas } from '../api/client';
import { isEarthed, isPlug } from './outlets';

type Rig = Schemas['Rig'];
type Point = Schemas['EarthPoint'];

export interface TreeLine {
	point: Point;
	/** How many conductors lead from the main bar to it. */
	depth: number;
	/** Devices plugged in there, by name; a device's own plug counts as where that is. */
	devices: string[];
	/** What is known of it: rating, protective device, resistance, voltage. */
	facts: string[];
}

const figure = (quantity: { value: number } | number | null | undefined): number | null =>
	typeof quantity === 'number' ? quantity : (quantity?.value ?? null);

export function treeOf(rig: Rig): TreeLine[] {
	const points = rig.venue.earth ?? [];
	const names = new Map(points.map((point) => [point.id, point.name]));
	const children = new Map<string | null, Point[]>();
	for (const point of points) {
		const parent = point.parent ?? null;
		children.set(parent, [...(children.get(parent) ?? []), point]);
	}
	const at = (id: string): string[] =>
		(rig.gear ?? []).filter((device) => device.outlet === id).map((device) => device.name);
	const lines: TreeLine[] = [];
	const walk = (parent: string | null, depth: number): void => {
		for (const point of children.get(parent) ?? []) {
			if (isPlug(point)) continue;
			const plugs = (children.get(point.id) ?? []).filter(isPlug);
			const devices = [...at(point.id), ...plugs.flatMap((plug) => at(plug.id))];
			lines.push({ point, depth, devices, facts: factsOf(point, names) });
			walk(point.id, depth + 1);
		}
	};
	walk(null, 0);
	return lines;
}

function factsOf(point: Point, names: ReadonlyMap<string, string>): string[] {
	const [breaker, residual, ohm] = [figure(point.breaker_a), figure(point.residual_a), figure(point.ohm)];
	const facts: string[] = [];
	if (breaker !== null) facts.push(`${breaker} A`);
	if (residual !== null) facts.push(`${Number((residual * 1000).toPrecision(6))} mA residual-current device`);
	if (ohm !== null) facts.push(`${ohm} Ω earth conductor`);
	const reading = figure(point.voltage?.reading_v ?? null);
	if (point.voltage) {
		const against = names.get(point.voltage.against ?? '') ?? 'the main bar';
		facts.push(`measured ${reading === null ? '' : `${reading} V `}against ${against}`);
	}
	return facts;
}

/** Earthed devices whose outlet nobody has said. */
export function nowhere(rig: Rig): string[] {
	const parts = new Map((rig.parts ?? []).map((part) => [part.id, part]));
	return (rig.gear ?? [])
		.filter((device) => !device.outlet && !device.earth_open && isEarthed(parts.get(device.part), device))
		.map((device) => device.name);
}
