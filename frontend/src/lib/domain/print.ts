/** What can be printed, and on what. */
import type { operations } from '../api/schema';

type Query = operations['printing_print_sheets_rigs__rig_id__print_get']['parameters']['query'];
export type SheetName = Query['sheets'][number];
export type Paper = NonNullable<Query['paper']>;
export type LabelSize = NonNullable<Query['labels']>;

export interface PrintChoice {
	sheets: SheetName[];
	paper: Paper;
	labels: LabelSize;
	/** Labels of the first sheet that are used up already. */
	skip: number;
}

export const SHEETS: readonly { id: SheetName; name: string; words: string }[] = [
	{ id: 'pull', name: 'Pull list and packing', words: 'which lead goes where, what to borrow, what to pack' },
	{ id: 'inputs', name: 'Input list', words: 'by area of the stage' },
	{ id: 'hook-up', name: 'Hook-up', words: 'each step with its reason, up and down again' },
	{ id: 'check', name: 'Line check', words: 'to be ticked, and typed in afterwards' },
	{ id: 'labels', name: 'Labels', words: 'for both ends of every lead, with a code to scan' },
	{ id: 'wiring', name: 'Wiring', words: 'contact to contact, for leads that somebody solders' }
];

export const LABEL_SIZES: readonly { id: LabelSize; words: string; count: number }[] = [
	{ id: '65', words: 'A4, 65 of 38.1 × 21.2 mm', count: 65 },
	{ id: '24', words: 'A4, 24 of 64 × 33.9 mm', count: 24 },
	{ id: '14', words: 'A4, 14 of 99.1 × 38.1 mm', count: 14 },
	{ id: '30', words: 'Letter, 30 of 2⅝ × 1 in', count: 30 },
	{ id: '10', words: 'Letter, 10 of 4 × 2 in', count: 10 }
];

/** What somebody chose the last time on this device, with the sheets of the station in front of them. */
export function choiceOf(kept: string | null, sheets: SheetName[]): PrintChoice {
	let before: Partial<PrintChoice> = {};
	try {
		before = JSON.parse(kept ?? '{}') as Partial<PrintChoice>;
	} catch {
		// What cannot be read is chosen anew.
	}
	const size = LABEL_SIZES.find(({ id }) => id === before.labels) ?? LABEL_SIZES[0];
	return {
		sheets,
		paper: before.paper === 'letter' ? 'letter' : 'a4',
		labels: size?.id ?? '65',
		skip: 0
	};
}

/** The sheets in their order, one added or taken away. */
export const toggled = (sheets: SheetName[], sheet: SheetName): SheetName[] =>
	SHEETS.map(({ id }) => id).filter((id) => sheets.includes(id) !== (id === sheet));
