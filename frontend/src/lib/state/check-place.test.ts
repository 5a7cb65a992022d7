import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { CheckPlace } from './check-place.svelte';

describe('the card on screen', () => {
	beforeEach(() => void vi.useFakeTimers());
	afterEach(() => void vi.useRealTimers());

	it('takes one tap, and the next after a moment', () => {
		const place = new CheckPlace('a');
		expect([place.takesTap(), place.takesTap()]).toEqual([true, false]);
		vi.advanceTimersByTime(1000);
		expect(place.takesTap()).toBe(true);
	});

	it('takes none for a moment after it has come, and stays as it is where it is there already', () => {
		const place = new CheckPlace(null);
		place.moveTo('b');
		expect([place.item, place.steady]).toEqual(['b', false]);
		vi.advanceTimersByTime(1000);
		place.moveTo('b');
		expect(place.steady).toBe(true);
	});
});
