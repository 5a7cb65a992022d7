/** The view of each station and its sign on the rail. */
import {
	AlarmClock,
	ArrowLeftRight,
	Cable,
	CalendarDays,
	CircleUserRound,
	ClipboardList,
	History,
	Landmark,
	Library,
	ListChecks,
	ListOrdered,
	NotebookPen,
	Package,
	UsersRound,
	Warehouse
} from '@lucide/svelte';
import type { StationViews } from '../lib/components/frame/station-views';
import Check from './check/Check.svelte';
import Doors from './doors/Doors.svelte';
import Log from './log/Log.svelte';
import Changes from './changes/Changes.svelte';
import Compare from './compare/Compare.svelte';
import Cupboard from './cupboard/Cupboard.svelte';
import HookUp from './hook-up/HookUp.svelte';
import Kit from './kit/Kit.svelte';
import People from './people/People.svelte';
import Pull from './pull/Pull.svelte';
import Rigs from './rigs/Rigs.svelte';
import Runs from './runs/Runs.svelte';
import Venue from './venue/Venue.svelte';
import Weeks from './weeks/Weeks.svelte';
import You from './you/You.svelte';

export const VIEWS: StationViews = {
	runs: { view: Runs, icon: Cable },
	pull: { view: Pull, icon: ClipboardList },
	'hook-up': { view: HookUp, icon: ListOrdered },
	check: { view: Check, icon: ListChecks },
	doors: { view: Doors, icon: AlarmClock },
	log: { view: Log, icon: NotebookPen },
	kit: { view: Kit, icon: Package },
	venue: { view: Venue, icon: Landmark },
	changes: { view: Changes, icon: History },
	weeks: { view: Weeks, icon: CalendarDays },
	cupboard: { view: Cupboard, icon: Warehouse },
	compare: { view: Compare, icon: ArrowLeftRight },
	rigs: { view: Rigs, icon: Library },
	people: { view: People, icon: UsersRound },
	you: { view: You, icon: CircleUserRound }
};
