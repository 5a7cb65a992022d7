import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { byDay } from './history';

const line = (id: number, made_at: string) => ({ id, made_at }) as Schemas['HistoryLine'];

describe('what was done', () => {
	it('is parted by the day, newest first', () => {
		const days = byDay([
			line(3, '2026-03-02T12:00:00'),
			line(2, '2026-03-02T09:00:00'),
			line(1, '2026-03-01T23:00:00')
		]);
		expect(days.map((day) => day.lines.map(({ id }) => id))).toEqual([[3, 2], [1]]);
		expect(byDay([])).toEqual([]);
	});
});
