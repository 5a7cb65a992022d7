/** One-key commands. None works while something is being typed. */
import { push } from 'svelte-spa-router';
import { addressOf } from '../domain/address';
import { STATIONS } from '../domain/stations';
import type { Desk } from './desk.svelte';
import { theme } from './theme.svelte';

export const KEYS: readonly (readonly [string, string])[] = [
	['↑ ↓', 'walk the runs; in the remedies, walk the remedies'],
	['→', 'from a run to its remedies'],
	['Enter', 'open or close a run; in the remedies, apply the one you are looking at'],
	['Esc', 'close the opened run'],
	['X', 'mark a run, to change several together'],
	['/', 'type a run'],
	['U', 'undo'],
	['Shift U', 'redo'],
	...STATIONS.map((station) => [station.key, station.name] as const),
	['L', 'at Weeks: the same a week later'],
	['T', 'Booth or Daylight'],
	['?', 'this list']
];

const BUTTONLIKE = ['checkbox', 'radio', 'range', 'button', 'submit', 'file'];

/** Whether keys go into a text; a switch or a slider leaves letters free. */
function typing(target: EventTarget | null): boolean {
	if (target instanceof HTMLInputElement) return !BUTTONLIKE.includes(target.type);
	return (
		target instanceof HTMLElement && (target.isContentEditable || /^(TEXTAREA|SELECT)$/.test(target.tagName))
	);
}

/** Sliders and radio groups move by arrow keys themselves. */
const usesArrows = (target: EventTarget | null): boolean =>
	target instanceof Element && target.closest('[role=slider], [role=radiogroup]') !== null;

const dialogOpen = (): boolean =>
	document.querySelector('[role=dialog][data-state=open], :popover-open') !== null;

export function shortcuts(event: KeyboardEvent, desk: Desk, help: () => void): void {
	if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
	if (event.key.startsWith('Arrow') && usesArrows(event.target)) return;
	const station = STATIONS.find((one) => one.key === event.key.toUpperCase());
	if (event.key === '/') document.querySelector<HTMLElement>('#line')?.focus();
	else if (event.key === 'u') void desk.sync.undo();
	else if (event.key === 'U') void desk.sync.redo();
	else if (event.key.toLowerCase() === 't') theme.toggle();
	else if (event.key === '?') help();
	else if (event.key === 'ArrowDown') desk.selection.walk(1);
	else if (event.key === 'ArrowUp') desk.selection.walk(-1);
	else if (event.key.toLowerCase() === 'x' && desk.selection.shownId !== null)
		desk.selection.mark(desk.selection.shownId, false);
	else if (event.key === 'Escape' && desk.selection.opened && !dialogOpen()) desk.selection.close();
	else if (event.key === 'ArrowRight') document.querySelector<HTMLElement>('button.remedy')?.focus();
	else if (station && !event.shiftKey)
		void push(addressOf({ station: station.id, rig: desk.selection.rigId, run: desk.selection.runId }));
	else return;
	event.preventDefault();
}
