import { describe, expect, it } from 'vitest';
import { dayWords, drawCurve, lineOf } from './trends';

const at = (day: number, hour = 10, minute = 0): string =>
	new Date(Date.UTC(2026, 0, day, hour, minute)).toISOString();

describe('measured hum', () => {
	it('goes from the first week at the left to the last at the right, loud above', () => {
		const points = [
			{ at: at(4), value_dbu: -60, predicted_dbu: -66 },
			{ at: at(18), value_dbu: -54, predicted_dbu: null }
		];
		const drawn = drawCurve(points, 100, 60);
		expect(drawn.measured.map(({ x }) => x)).toEqual([0, 100]);
		expect(drawn.measured[1]?.y).toBeLessThan(drawn.measured[0]?.y ?? 0);
		expect(drawn.computed).toHaveLength(1);
		expect([drawn.low_dbu, drawn.high_dbu]).toEqual([-69, -51]);
		expect(lineOf(drawn.measured)).toMatch(/^M0\.0 .* L100\.0 /);
	});

	it('of one week stands in the middle', () => {
		expect(drawCurve([{ at: at(4), value_dbu: -60, predicted_dbu: null }], 100, 60).measured[0]?.x).toBe(50);
	});
});

describe('a day of checking', () => {
	const day = {
		rig: 'hall',
		rig_name: 'Hall',
		began_at: at(4, 9),
		ended_at: at(4, 9, 34),
		good: 12,
		wrong: 0,
		found: [],
		doors_at: null
	};

	it('says how long it took, what is left, and how near the doors were', () => {
		expect(dayWords(day)).toBe('34 min, 12 good');
		expect(dayWords({ ...day, wrong: 2, doors_at: at(4, 10) })).toBe(
			'34 min, 12 good, 2 left wrong, done 26 min before the doors'
		);
		expect(dayWords({ ...day, doors_at: at(4, 9, 30) })).toContain('done 4 min after the doors');
	});
});
