/** Addresses of what is on screen, so that a rig, a station of it and a run can be sent to somebody. */

import { isOfTheHouse, stationNamed, type Station } from './stations';

/** What an address names. Without a rig, the rig that was open last is meant. */
export interface ScreenPlace {
	station: Station;
	rig: string | null;
	run: string | null;
	/** Of two rigs beside each other: the earlier and the later. */
	pair?: readonly [string, string];
}

/** Stations that show one run. */
const WITH_RUN: readonly Station[] = ['runs', 'check'];

export const compareAddress = (before: string, after: string): string =>
	`/compare/${encodeURIComponent(before)}/${encodeURIComponent(after)}`;

/** The address after `#`; a run belongs into that of the runs and of their check. */
export function addressOf({ station, rig, run }: ScreenPlace): string {
	if (isOfTheHouse(station)) return `/${station}`;
	if (rig === null) return station === 'runs' ? '/' : `/${station}`;
	const address = `/rigs/${encodeURIComponent(rig)}/${station}`;
	return WITH_RUN.includes(station) && run !== null ? `${address}/${encodeURIComponent(run)}` : address;
}

/** What an address after `#` names, or null where there is nothing at it. */
export function placeOf(address: string): ScreenPlace | null {
	let parts: string[];
	try {
		parts = address.split('/').filter(Boolean).map(decodeURIComponent);
	} catch {
		return null;
	}
	if (parts[0] === 'compare') {
		const [, before, after, ...more] = parts;
		if (before === undefined || after === undefined || more.length > 0) return null;
		return { station: 'compare', rig: null, run: null, pair: [before, after] };
	}
	if (parts[0] !== 'rigs') {
		const station = stationNamed(parts[0] ?? 'runs');
		return station && parts.length < 2 ? { station, rig: null, run: null } : null;
	}
	const [, rig, name, run, ...more] = parts;
	if (rig === undefined) return { station: 'rigs', rig: null, run: null };
	const station = stationNamed(name ?? 'runs');
	if (!station || isOfTheHouse(station) || more.length > 0) return null;
	if (run !== undefined && !WITH_RUN.includes(station)) return null;
	return { station, rig, run: run ?? null };
}
