/** Edits of several runs at once. */
import type { Schemas } from '../api/client';
import { number } from './format';
import { set, setField } from './ops';
import { isEarthed, plugEdit, type Strip } from './outlets';

type Rig = Schemas['Rig'];
type Run = Schemas['Run'];
type Edit = Schemas['Edit'];

export const runsOf = (rig: Rig, ids: readonly string[]): Run[] =>
	ids.flatMap((id) => (rig.runs ?? []).filter((run) => run.id === id));

const countWords = (runs: readonly Run[]): string =>
	runs.length === 1 ? (runs[0]?.name ?? '') : `${runs.length} runs`;

/** Takes the runs out of the plan; devices and kit stay. */
export const deleteRuns = (runs: readonly Run[]): Edit => ({
	label: `Delete ${countWords(runs)}`,
	ops: runs.map((run) => ({ op: 'remove' as const, kind: 'runs' as const, id: run.id }))
});

/** Of each run the longest lead that is not built in gets this length. Null where none has such a lead. */
export function setLength(rig: Rig, runs: readonly Run[], lengthM: number): Edit | null {
	const items = new Map((rig.kit ?? []).map((item) => [item.id, item]));
	const longest = runs.flatMap((run) => {
		const leads = (run.pieces ?? []).flatMap((piece) => items.get(piece) ?? []);
		const movable = leads.filter((item) => item.length_m != null && !item.installed);
		return movable.toSorted((one, other) => (other.length_m ?? 0) - (one.length_m ?? 0)).slice(0, 1);
	});
	const ids = [...new Set(longest.map((item) => item.id))];
	if (ids.length === 0) return null;
	return {
		label: `${countWords(runs)}: lead ${number(lengthM)} m`,
		ops: ids.map((id) => set('kit', id, 'length_m', lengthM))
	};
}

/** Phantom power at the inputs that these runs reach. Null where none has any. */
export function setPhantom(rig: Rig, runs: readonly Run[], on: boolean): Edit | null {
	const gear = new Map((rig.gear ?? []).map((device) => [device.id, device]));
	const parts = new Map((rig.parts ?? []).map((part) => [part.id, part]));
	const switches = runs
		.flatMap((run) => (run.joins ?? []).map((join) => join.b))
		.flatMap((end) => {
			const [owner = '', connector = ''] = end.split('.');
			const part = parts.get(gear.get(owner)?.part ?? '');
			return (part?.inputs ?? [])
				.filter((input) => input.connectors.includes(connector))
				.flatMap((input) => input.phantom?.setting ?? [])
				.map((setting) => ({ owner, setting }));
		});
	if (switches.length === 0) return null;
	const each = new Map(switches.map((one) => [`${one.owner} ${one.setting}`, one]));
	return {
		label: `${countWords(runs)}: phantom ${on ? 'on' : 'off'}`,
		ops: [...each.values()].map(({ owner, setting }) => ({
			...setField('gear', owner, 'settings', setting),
			value: on
		}))
	};
}

/** Numbers in the order they are listed. */
export const renumber = (runs: readonly Run[], from: number): Edit => ({
	label: `Number ${countWords(runs)} from ${from}`,
	ops: runs.map((run, index) => set('runs', run.id, 'number', from + index))
});

/** The mains plugs of the devices these runs start from, in one strip. Null where none has a plug with an earth. */
export function plugSources(rig: Rig, runs: readonly Run[], strip: Strip): Edit | null {
	const parts = new Map((rig.parts ?? []).map((part) => [part.id, part]));
	const starts = new Set(runs.flatMap((run) => (run.joins ?? []).map((join) => join.a.split('.')[0])));
	const sources = (rig.gear ?? []).filter(
		(device) => starts.has(device.id) && isEarthed(parts.get(device.part), device)
	);
	if (sources.length === 0) return null;
	return {
		label: `${countWords(runs)}: plugs in ${strip.name}`,
		ops: sources.flatMap((device) => plugEdit(rig, device, strip.id).ops)
	};
}
