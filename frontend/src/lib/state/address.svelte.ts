/**
 * Keeps address and desk together: the address leads on opening, Back and links; a selection is written into it.
 * The effects run in the order they stand in, so the last of them sees what the address has led to.
 */
import { push, replace, router } from 'svelte-spa-router';
import { untrack } from 'svelte';
import { addressOf, placeOf } from '../domain/address';
import { isOfTheHouse } from '../domain/stations';
import type { Desk } from './desk.svelte';

/**
 * To be called once, in a component that stays. `rigIds` are those of the rigs there are; null while that is not
 * known, and empty where none exists.
 */
export function followAddress(desk: Desk, rigIds: () => readonly string[] | null): void {
	$effect(() => {
		const place = placeOf(router.location);
		if (place) untrack(() => desk.selection.goTo(place));
	});
	// An address without a rig means the rig that was open last, or the first where that is gone.
	$effect(() => {
		const ids = rigIds();
		if (desk.selection.rigId !== null || ids === null || placeOf(router.location)?.rig !== null) return;
		const last = desk.selection.lastRig();
		const rig = ids.find((id) => id === last) ?? ids[0];
		if (rig !== undefined) untrack(() => desk.selection.goTo({ station: 'rigs', rig, run: null }));
	});
	$effect(() => {
		const place = placeOf(router.location);
		if (!place || isOfTheHouse(place.station) || desk.selection.rigId === null) return;
		const address = addressOf({
			station: place.station,
			rig: desk.selection.rigId,
			run: desk.selection.runId
		});
		if (address === router.location) return;
		const elsewhere =
			place.rig !== desk.selection.rigId || (place.station === 'runs' && place.run !== desk.selection.runId);
		// The same place said in full is no step of its own to go back over.
		void (place.rig !== null && elsewhere ? push(address) : replace(address));
	});
}
