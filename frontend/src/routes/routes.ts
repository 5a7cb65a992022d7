/** The view of each station and its sign on the rail. */
import { Cable, History, Library, Package } from '@lucide/svelte';
import type { StationViews } from '../lib/components/frame/station-views';
import Changes from './changes/Changes.svelte';
import Kit from './kit/Kit.svelte';
import Rigs from './rigs/Rigs.svelte';
import Runs from './runs/Runs.svelte';

export const VIEWS: StationViews = {
	runs: { view: Runs, icon: Cable },
	kit: { view: Kit, icon: Package },
	changes: { view: Changes, icon: History },
	rigs: { view: Rigs, icon: Library }
};
