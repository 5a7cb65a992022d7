/** The stations in working order: what each is called in addresses and on the rail, and which key jumps there. */
export const STATIONS = [
	{ id: 'runs', name: 'Runs', key: 'R' },
	{ id: 'kit', name: 'Kit', key: 'K' },
	{ id: 'venue', name: 'Venue', key: 'V' },
	{ id: 'changes', name: 'Changes', key: 'C' },
	{ id: 'rigs', name: 'Rigs', key: 'G' },
	{ id: 'people', name: 'People', key: 'P' },
	{ id: 'you', name: 'You', key: 'Y' }
] as const;

export type Station = (typeof STATIONS)[number]['id'];

/** Those that belong to no rig; they have addresses like `/rigs`. */
const OF_THE_HOUSE: readonly Station[] = ['rigs', 'people', 'you'];

export const isOfTheHouse = (station: Station): boolean => OF_THE_HOUSE.includes(station);

export const stationNamed = (name: string): Station | undefined => STATIONS.find(({ id }) => id === name)?.id;
