/** The stations in working order: what each is called in addresses and on the rail, and which key jumps there. */
export const STATIONS = [
	{ id: 'runs', name: 'Runs', key: 'R' },
	{ id: 'pull', name: 'Pull', key: 'E' },
	{ id: 'hook-up', name: 'Hook-up', key: 'N' },
	{ id: 'check', name: 'Check', key: 'H' },
	{ id: 'doors', name: 'Doors', key: 'D' },
	{ id: 'log', name: 'Log', key: 'O' },
	{ id: 'kit', name: 'Kit', key: 'K' },
	{ id: 'venue', name: 'Venue', key: 'V' },
	{ id: 'changes', name: 'Changes', key: 'C' },
	{ id: 'weeks', name: 'Weeks', key: 'W' },
	{ id: 'cupboard', name: 'Cupboard', key: 'B' },
	{ id: 'rigs', name: 'Rigs', key: 'G' },
	{ id: 'people', name: 'People', key: 'P' },
	{ id: 'you', name: 'You', key: 'Y' }
] as const;

/** Two rigs beside each other have an address too, and no place on the rail. */
export type Station = (typeof STATIONS)[number]['id'] | 'compare';

/** Those that belong to no rig; they have addresses like `/rigs`. */
const OF_THE_HOUSE: readonly Station[] = ['weeks', 'cupboard', 'rigs', 'people', 'you', 'compare'];

/** Those that go on without a network, from what the device keeps of a rig. */
export const ALONE = ['hook-up', 'check', 'doors'] as const satisfies readonly Station[];

export type AloneStation = (typeof ALONE)[number];

export const goesOnAlone = (station: Station | undefined): station is AloneStation =>
	ALONE.some((id) => id === station);

export const isOfTheHouse = (station: Station): boolean => OF_THE_HOUSE.includes(station);

export const stationNamed = (name: string): Station | undefined => STATIONS.find(({ id }) => id === name)?.id;
