/** The last ten minutes: what is not good yet, what it costs, and how long there is. */
import type { Schemas } from '../api/client';
import { stateOf, type CheckedRun, type Known, type Standing, type State } from './check';

const MINUTE_MS = 60_000;
const LAST_MINUTES = 10;
const HOUR = 60;
const DAY = 24 * HOUR;

export interface OpenItem {
	item: CheckedRun;
	state: State;
	standing: Standing | undefined;
	/** What the occasion loses while it stays so. */
	loss: string;
	weight: number;
}

/** By run. */
export const lossesOf = (round: Schemas['Round'] | null | undefined): Map<string, Schemas['Loss']> =>
	new Map((round?.losses ?? []).map((loss) => [loss.run, loss]));

/** What is heard but not clean reaches its listeners still; what is silent, or nobody has heard yet, does not. */
function lossWords(loss: Schemas['Loss'] | undefined, stands: Standing | undefined): string | undefined {
	const plays = stands?.answer === 'wrong' && stands.heard !== null && stands.heard !== 'silent';
	return plays ? loss?.heard : loss?.words;
}

const RANK: Record<State, number> = { wrong: 0, changed: 1, open: 2, skipped: 3, good: 4 };

/** What is not good, the worst first: what is wrong before what nobody has heard yet, then by how many listeners miss
 * how many sources. */
export function openItems(
	items: readonly CheckedRun[],
	standing: ReadonlyMap<string, Standing>,
	losses: ReadonlyMap<string, Schemas['Loss']>
): OpenItem[] {
	return items
		.map((item, at) => {
			const loss = losses.get(item.run);
			return {
				item,
				at,
				state: stateOf(standing.get(item.run)),
				standing: standing.get(item.run),
				loss: lossWords(loss, standing.get(item.run)) ?? item.step?.why ?? '',
				weight: loss ? loss.sources * loss.listeners : 0
			};
		})
		.filter(({ state }) => state !== 'good')
		.sort((a, b) => RANK[a.state] - RANK[b.state] || b.weight - a.weight || a.at - b.at)
		.map(({ item, state, standing: stands, loss, weight }) => ({
			item,
			state,
			standing: stands,
			loss,
			weight
		}));
}

/** Whole minutes until then, rounded up; negative once it is past. */
export const minutesTo = (doors: string, now: number): number =>
	Math.ceil((Date.parse(doors) - now) / MINUTE_MS);

export function doorsWords(minutes: number): string {
	if (minutes === 0) return 'Doors now';
	const amount = (count: number): string => {
		if (count < 2 * HOUR) return `${count} min`;
		if (count < 2 * DAY) return `${Math.floor(count / HOUR)} h ${count % HOUR} min`;
		return `${Math.floor(count / DAY)} days`;
	};
	return minutes > 0 ? `Doors in ${amount(minutes)}` : `Doors open for ${amount(-minutes)}`;
}

export const isLate = (minutes: number): boolean => minutes <= LAST_MINUTES;

/** From the first thing that was done to the last; null before the first. */
export function workingTime(
	entries: readonly Known[]
): { from: string; until: string; minutes: number } | null {
	const times = entries
		.filter(({ kind, answer }) => (kind === 'check' || kind === 'step') && answer != null)
		.map(({ at }) => at)
		.sort((a, b) => Date.parse(a) - Date.parse(b));
	const [from, until] = [times[0], times.at(-1)];
	if (from === undefined || until === undefined) return null;
	return { from, until, minutes: Math.round((Date.parse(until) - Date.parse(from)) / MINUTE_MS) };
}

/** A moment as a field for times takes it. */
export function clockOf(moment: string): string {
	const at = new Date(moment);
	return [at.getHours(), at.getMinutes()].map((part) => String(part).padStart(2, '0')).join(':');
}

/** A time of day on the day of the occasion. */
export function timeOn(day: string, clock: string): string | null {
	const [hour, minute] = clock.split(':').map(Number);
	if (hour === undefined || minute === undefined || Number.isNaN(hour) || Number.isNaN(minute)) return null;
	const at = new Date(day);
	at.setHours(hour, minute, 0, 0);
	return at.toISOString();
}
