/** Which device a run is named after in talk: the one with the fewest runs, so the lectern and not the desk. */
import type { Schemas } from '../api/client';

type Rig = Schemas['Rig'];
type Run = Schemas['Run'];
type Gear = Schemas['Gear'];

const owners = (run: Run): Set<string> =>
	new Set((run.joins ?? []).flatMap(({ a, b }) => [a, b].map((end) => end.split('.')[0] ?? '')));

export function deviceOf(rig: Rig, run: Run): Gear | undefined {
	const at = owners(run);
	const runs = (gear: Gear): number => (rig.runs ?? []).filter((other) => owners(other).has(gear.id)).length;
	return (rig.gear ?? []).filter((gear) => at.has(gear.id)).sort((a, b) => runs(a) - runs(b))[0];
}
