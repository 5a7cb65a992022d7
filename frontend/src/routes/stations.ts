/** The stations in working order: what the rail shows and which key jumps there. */
import { Cable, History, Library, Package } from '@lucide/svelte';

export const STATIONS = [
	{ path: '/', name: 'Runs', key: 'R', icon: Cable },
	{ path: '/kit', name: 'Kit', key: 'K', icon: Package },
	{ path: '/changes', name: 'Changes', key: 'C', icon: History },
	{ path: '/rigs', name: 'Rigs', key: 'G', icon: Library }
] as const;
