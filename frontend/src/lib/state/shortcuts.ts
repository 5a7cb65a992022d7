/** One-key commands. None works while something is being typed. */
import { push } from 'svelte-spa-router';
import { addressOf } from '../domain/address';
import { STATIONS } from '../stations';
import type { Desk } from './desk.svelte';
import { theme } from './theme.svelte';

export const KEYS: readonly (readonly [string, string])[] = [
	['↑ ↓', 'walk the runs; in the remedies, walk the remedies'],
	['→', 'from a run to its remedies'],
	['Enter', 'apply the remedy you are looking at'],
	['/', 'type a run'],
	['U', 'undo'],
	['Shift U', 'redo'],
	...STATIONS.map((station) => [station.key, station.name] as const),
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

export function shortcuts(event: KeyboardEvent, desk: Desk, help: () => void): void {
	if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
	if (event.key.startsWith('Arrow') && usesArrows(event.target)) return;
	const station = STATIONS.find((one) => one.key === event.key.toUpperCase());
	if (event.key === '/') document.querySelector<HTMLElement>('#line')?.focus();
	else if (event.key === 'u') void desk.undo();
	else if (event.key === 'U') void desk.redo();
	else if (event.key.toLowerCase() === 't') theme.toggle();
	else if (event.key === '?') help();
	else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') walkRuns(event, desk);
	else if (event.key === 'ArrowRight') document.querySelector<HTMLElement>('button.remedy')?.focus();
	else if (station && !event.shiftKey)
		void push(addressOf({ station: station.id, rig: desk.rigId, run: desk.runId }));
	else return;
	event.preventDefault();
}

function walkRuns(event: KeyboardEvent, desk: Desk): void {
	const runs = [...document.querySelectorAll<HTMLElement>('article[data-run]')];
	const here = runs.findIndex((run) => run.getAttribute('aria-current') === 'true');
	const next = runs[here + (event.key === 'ArrowDown' ? 1 : -1)];
	const id = next?.dataset['run'];
	if (id === undefined) return;
	desk.select(id);
	next?.querySelector<HTMLElement>('button.pick-run')?.focus();
}
