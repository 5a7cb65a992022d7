import { describe, expect, it } from 'vitest';
import type { Occasion } from './occasions';
import {
	aWeekLater,
	byWeeks,
	dayOf,
	hoursOf,
	momentsOf,
	nextOf,
	sameRig,
	typedOf,
	weekName,
	weeksAway
} from './occasions';

/** By the clock on this wall. */
const at = (day: string, time: string): string => new Date(`${day}T${time}`).toISOString();
const occasion = (id: string, day: string, from = '18:00', to = '22:00', more: object = {}): Occasion => ({
	id,
	name: id,
	starts_at: at(day, from),
	ends_at: at(day, to),
	doors_at: null,
	after: null,
	rigs: [],
	notes: [],
	...more
});
const WEDNESDAY = new Date('2026-12-02T12:00');

describe('weeks', () => {
	it('are counted from Monday to Sunday', () => {
		expect(weeksAway(at('2026-11-30', '00:00'), WEDNESDAY)).toBe(0);
		expect(weeksAway(at('2026-12-06', '23:59'), WEDNESDAY)).toBe(0);
		expect(weeksAway(at('2026-12-07', '00:00'), WEDNESDAY)).toBe(1);
		expect(weeksAway(at('2026-11-29', '23:59'), WEDNESDAY)).toBe(-1);
		expect([0, 1, 2, -1, -3].map(weekName)).toEqual([
			'This week',
			'Next week',
			'In 2 weeks',
			'Last week',
			'3 weeks ago'
		]);
	});

	it('stand with what is to come first, and what is over behind it', () => {
		const weeks = byWeeks(
			[
				occasion('later', '2026-12-12'),
				occasion('old', '2026-11-15'),
				occasion('sunday', '2026-12-06'),
				occasion('monday', '2026-11-30'),
				occasion('last', '2026-11-28')
			],
			WEDNESDAY
		);
		expect(weeks.map(({ occasions }) => occasions.map(({ id }) => id))).toEqual([
			['monday', 'sunday'],
			['later'],
			['last'],
			['old']
		]);
	});

	it('have a next occasion, or the last that was', () => {
		const all = [
			occasion('past', '2026-11-28'),
			occasion('next', '2026-12-05'),
			occasion('on', '2026-12-02', '10:00')
		];
		expect(nextOf(all, WEDNESDAY)?.id).toBe('on');
		expect(nextOf(all.slice(0, 1), WEDNESDAY)?.id).toBe('past');
		expect(nextOf([], WEDNESDAY)).toBeUndefined();
	});
});

describe('hours', () => {
	it('are said with the second day where they go past midnight', () => {
		expect(hoursOf(occasion('a', '2026-12-05'))).toBe('18:00\u201322:00');
		const night = { starts_at: at('2026-12-05', '20:00'), ends_at: at('2026-12-06', '02:00') };
		expect(hoursOf(night)).toBe(`20:00\u2013${dayOf(night.ends_at)} 02:00`);
	});

	it('come out of a form as they went in', () => {
		const given = occasion('Evening', '2026-12-05', '17:30', '22:15');
		expect(momentsOf(typedOf(given))).toEqual({
			name: 'Evening',
			starts_at: given.starts_at,
			ends_at: given.ends_at
		});
	});

	it('that end before they begin go on past midnight', () => {
		const made = momentsOf({ name: ' Night ', day: '2026-12-05', from: '20:00', to: '02:00' });
		expect(made).toEqual({
			name: 'Night',
			starts_at: at('2026-12-05', '20:00'),
			ends_at: at('2026-12-06', '02:00')
		});
		expect(momentsOf({ name: '', day: '2026-12-05', from: '20:00', to: '22:00' })).toBeNull();
		expect(momentsOf({ name: 'x', day: '', from: '20:00', to: '22:00' })).toBeNull();
	});

	it('are the same by the clock a week later', () => {
		const later = aWeekLater(occasion('x', '2026-10-24', '18:00', '22:00'));
		expect(new Date(later.starts_at).getHours()).toBe(18);
		expect(new Date(later.starts_at).getDate()).toBe(31);
	});
});

describe('a rig of last week', () => {
	it('is the one called the same', () => {
		const rig = (id: string, name: string) => ({ id, name, venue: 'Hall', runs: 3 });
		const earlier = occasion('a', '2026-11-28', '18:00', '22:00', {
			rigs: [rig('hall', 'Hall'), rig('foyer', 'Foyer')]
		});
		expect(sameRig(rig('hall-2', 'Hall'), earlier)?.id).toBe('hall');
		expect(sameRig(rig('new', 'Tent'), earlier)).toBeUndefined();
		expect(sameRig(rig('hall-2', 'Hall'), undefined)).toBeUndefined();
	});
});
