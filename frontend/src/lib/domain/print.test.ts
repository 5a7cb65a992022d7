import { describe, expect, it } from 'vitest';
import { choiceOf, LABEL_SIZES, SHEETS, toggled } from './print';

describe('what is printed', () => {
	it('keeps paper and labels of the last time, and never how many labels were used up', () => {
		const kept = JSON.stringify({ paper: 'letter', labels: '30', skip: 7, sheets: ['wiring'] });
		expect(choiceOf(kept, ['pull'])).toEqual({ sheets: ['pull'], paper: 'letter', labels: '30', skip: 0 });
	});

	it('begins anew where nothing sensible was kept', () => {
		for (const kept of [null, '', '{', '{"paper":"a0","labels":"7"}'])
			expect(choiceOf(kept, ['check'])).toEqual({ sheets: ['check'], paper: 'a4', labels: '65', skip: 0 });
	});

	it('lists the sheets in the order in which they are used', () => {
		expect(toggled(['labels'], 'pull')).toEqual(['pull', 'labels']);
		expect(toggled(['pull', 'labels'], 'pull')).toEqual(['labels']);
		expect(
			SHEETS.reduce<(typeof SHEETS)[number]['id'][]>((all, { id }) => toggled(all, id), [])
		).toHaveLength(6);
		expect(LABEL_SIZES.map(({ id, count }) => String(count) === id)).not.toContain(false);
	});
});
