/** What people call a thing of the rig: a device, lead, earth point or mains cable by its id. */
import type { Schemas } from '../api/client';

export function nameOf(rig: Schemas['Rig'], id: string): string {
	const gear = (rig.gear ?? []).find((one) => one.id === id);
	const item = (rig.kit ?? []).find((one) => one.id === id);
	const point = [...(rig.venue.earth ?? []), ...(rig.venue.mains ?? [])].find((one) => one.id === id);
	return gear?.name ?? item?.tag ?? point?.name ?? id;
}

const SIGNS: Record<string, string> = { plus: '+', minus: '\u2212' };

/** What fits into a contact's ring: "2", "T", "R1", "+". */
export const contactName = (name: string): string => SIGNS[name] ?? name.slice(0, 2);
