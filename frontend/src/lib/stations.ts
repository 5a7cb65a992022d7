/** The stations in working order: what the rail shows, which key jumps there, what each is called in addresses. */
import { Cable, History, Library, Package } from '@lucide/svelte';

export const STATIONS = [
	{ id: 'runs', name: 'Runs', key: 'R', icon: Cable },
	{ id: 'kit', name: 'Kit', key: 'K', icon: Package },
	{ id: 'changes', name: 'Changes', key: 'C', icon: History },
	{ id: 'rigs', name: 'Rigs', key: 'G', icon: Library }
] as const;
