/** Occasions as a technician speaks of them: by weeks, with hours; the same a week later by the clock on the wall. */
import type { Schemas } from '../api/client';

export type Occasion = Schemas['Occasion'];

const DAY_MS = 24 * 3600 * 1000;

/** Monday of a moment's week, at midnight here. */
function weekOf(moment: Date): Date {
	const monday = new Date(moment.getFullYear(), moment.getMonth(), moment.getDate());
	monday.setDate(monday.getDate() - ((monday.getDay() + 6) % 7));
	return monday;
}

/** Weeks from this one: 0 is this week, 1 the next, -1 the last. */
export const weeksAway = (moment: string, now: Date): number =>
	Math.round((weekOf(new Date(moment)).getTime() - weekOf(now).getTime()) / (7 * DAY_MS));

export function weekName(weeks: number): string {
	if (weeks === 0) return 'This week';
	if (weeks === 1) return 'Next week';
	if (weeks === -1) return 'Last week';
	return weeks > 0 ? `In ${weeks} weeks` : `${-weeks} weeks ago`;
}

export interface Week {
	name: string;
	weeks: number;
	occasions: Occasion[];
}

/** By weeks: what is to come first and the soonest at its top, then what is over. */
export function byWeeks(occasions: readonly Occasion[], now: Date): Week[] {
	const result = new Map<number, Week>();
	const inOrder = [...occasions].sort((a, b) => a.starts_at.localeCompare(b.starts_at));
	for (const occasion of inOrder) {
		const weeks = weeksAway(occasion.starts_at, now);
		const week = result.get(weeks) ?? { name: weekName(weeks), weeks, occasions: [] };
		week.occasions.push(occasion);
		result.set(weeks, week);
	}
	const all = [...result.values()];
	return [
		...all.filter(({ weeks }) => weeks >= 0),
		...all.filter(({ weeks }) => weeks < 0).sort((a, b) => b.weeks - a.weeks)
	];
}

/** What is next, or the last that was. */
export function nextOf(occasions: readonly Occasion[], now: Date): Occasion | undefined {
	const inOrder = [...occasions].sort((a, b) => a.starts_at.localeCompare(b.starts_at));
	return inOrder.find(({ ends_at }) => new Date(ends_at) > now) ?? inOrder.at(-1);
}

export const dayOf = (moment: string): string =>
	new Date(moment).toLocaleDateString(undefined, { weekday: 'short', day: 'numeric', month: 'short' });

const timeOf = (moment: Date): string =>
	`${String(moment.getHours()).padStart(2, '0')}:${String(moment.getMinutes()).padStart(2, '0')}`;

/** "18:00–22:00"; with the second day where it goes on past midnight. */
export function hoursOf({ starts_at, ends_at }: Pick<Occasion, 'starts_at' | 'ends_at'>): string {
	const [start, end] = [new Date(starts_at), new Date(ends_at)];
	const sameDay = start.toDateString() === end.toDateString();
	return `${timeOf(start)}\u2013${sameDay ? '' : `${dayOf(ends_at)} `}${timeOf(end)}`;
}

/** What the fields of a form hold. */
export interface Typed {
	name: string;
	day: string;
	from: string;
	to: string;
}

const two = (value: number): string => String(value).padStart(2, '0');

export function typedOf(occasion: Pick<Occasion, 'name' | 'starts_at' | 'ends_at'>): Typed {
	const [start, end] = [new Date(occasion.starts_at), new Date(occasion.ends_at)];
	const day = `${start.getFullYear()}-${two(start.getMonth() + 1)}-${two(start.getDate())}`;
	return { name: occasion.name, day, from: timeOf(start), to: timeOf(end) };
}

/** What the fields say, as moments; one that ends before it begins goes on past midnight. Null while they are empty. */
export function momentsOf({ name, day, from, to }: Typed): Schemas['OccasionBody'] | null {
	const [start, end] = [new Date(`${day}T${from}`), new Date(`${day}T${to}`)];
	if (!name.trim() || Number.isNaN(start.getTime()) || Number.isNaN(end.getTime())) return null;
	if (end <= start) end.setDate(end.getDate() + 1);
	return { name: name.trim(), starts_at: start.toISOString(), ends_at: end.toISOString() };
}

/** The same a week later by the clock on the wall, whatever summer time does in between. */
export function aWeekLater(occasion: Occasion): Schemas['OccasionBody'] {
	const later = (moment: string): string => {
		const then = new Date(moment);
		then.setDate(then.getDate() + 7);
		return then.toISOString();
	};
	return { name: occasion.name, starts_at: later(occasion.starts_at), ends_at: later(occasion.ends_at) };
}

/** The rig of an earlier occasion that a rig was copied from: the one called the same. */
export const sameRig = (
	rig: Schemas['OccasionRig'],
	earlier: Occasion | undefined
): Schemas['OccasionRig'] | undefined =>
	earlier?.rigs.find(({ name, id }) => name === rig.name && id !== rig.id);
