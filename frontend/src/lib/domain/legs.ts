/** A run's legs as a list that can be changed: swapped, inserted, taken out, moved. Pure; nothing here is saved. */
import type { Schemas } from '../api/client';

type KitItem = Schemas['KitItem'];

/** A leg that could be used, as the kit item it is or would become. */
export const itemOf = (choice: Schemas['LegChoice']): KitItem => ({
	id: choice.item,
	tag: choice.tag,
	part: choice.part,
	length_m: choice.length_m ?? null,
	owned: choice.in_kit,
	installed: false,
	beside: null,
	loop_width_m: null
});

export const legsOf = (rig: Schemas['Rig'], runId: string): KitItem[] => {
	const kit = new Map((rig.kit ?? []).map((item) => [item.id, item]));
	const run = (rig.runs ?? []).find((one) => one.id === runId);
	return (run?.legs ?? []).flatMap((id) => kit.get(id) ?? []);
};

export const swapped = (legs: readonly KitItem[], at: number, item: KitItem): KitItem[] =>
	legs.map((leg, index) => (index === at ? item : leg));

export const inserted = (legs: readonly KitItem[], at: number, item: KitItem): KitItem[] => [
	...legs.slice(0, at),
	item,
	...legs.slice(at)
];

export const without = (legs: readonly KitItem[], at: number): KitItem[] =>
	legs.filter((_, index) => index !== at);

/** One place nearer the source (-1) or the destination (+1). */
export function moved(legs: readonly KitItem[], at: number, step: -1 | 1): KitItem[] {
	const leg = legs[at];
	return leg === undefined ? [...legs] : inserted(without(legs, at), at + step, leg);
}
