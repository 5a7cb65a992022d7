/** Roles in words, and what a link's address carries. */
import type { Schemas } from '../api/client';

export type Role = Schemas['PersonSummary']['role'];

/** What each may do, from the most to the least. */
export const ROLES: Record<Role, string> = {
	owner: 'manages people; plans',
	technician: 'plans rigs',
	helper: 'records what was done on stage',
	viewer: 'looks on'
};

export const ROLE_NAMES: Record<Role, string> = {
	owner: 'Owner',
	technician: 'Technician',
	helper: 'Helper',
	viewer: 'Viewer'
};

/** People under a heading for each role that somebody has. */
export function byRole(
	people: readonly Schemas['PersonSummary'][]
): { role: Role; heading: string; people: Schemas['PersonSummary'][] }[] {
	return (Object.keys(ROLES) as Role[]).flatMap((role) => {
		const own = people.filter((person) => person.role === role);
		const heading = `${ROLE_NAMES[role]}${own.length === 1 ? '' : 's'}`;
		return own.length > 0 ? [{ role, heading, people: own }] : [];
	});
}

/** What a link gives, as whoever makes it says it. */
export const GIVES: Record<Schemas['Link']['gives'], string> = {
	read: 'see this rig',
	record: 'see it and record what was done'
};

/** For how long a link may be good, by hours. */
export const HOURS: Record<number, string> = {
	4: '4 hours',
	12: '12 hours',
	48: '2 days',
	168: 'a week',
	672: '4 weeks'
};

/** What a link carries behind the `#`, or null where it is another address. */
export const linkToken = (hash: string): string | null =>
	/^#\/link\/([A-Za-z0-9_-]{1,128})$/.exec(hash)?.[1] ?? null;

/** A browser by the words it says of itself: "Phone", "Tablet", or "Computer". */
export function deviceOf(words: string): string {
	if (/iPad|Tablet/i.test(words) || (/Android/i.test(words) && !/Mobile/i.test(words))) return 'Tablet';
	return /Mobi|iPhone|Android/i.test(words) ? 'Phone' : 'Computer';
}

/** A moment to come: its time where it is today, with its day otherwise. */
export function until(moment: string, now = new Date()): string {
	const then = new Date(moment);
	const time = then.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
	const today = then.toDateString() === now.toDateString();
	return today ? time : `${then.toLocaleDateString([], { day: 'numeric', month: 'short' })}, ${time}`;
}
