/** The stations in working order: what each is called in addresses and on the rail, and which key jumps there. */
export const STATIONS = [
	{ id: 'runs', name: 'Runs', key: 'R' },
	{ id: 'kit', name: 'Kit', key: 'K' },
	{ id: 'changes', name: 'Changes', key: 'C' },
	{ id: 'rigs', name: 'Rigs', key: 'G' }
] as const;

export type Station = (typeof STATIONS)[number]['id'];

/** The list of rigs is the only one that belongs to no rig; it has the address `/rigs`. */
export const stationNamed = (name: string): Station | undefined =>
	STATIONS.find(({ id }) => id === name && id !== 'rigs')?.id;
