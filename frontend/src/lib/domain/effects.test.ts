import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { humChange, otherWords } from './effects';

const effect = (before: object, after: object) =>
	({ run: 'a', name: 'A', before, after }) as unknown as Schemas['Effect'];

describe('an effect', () => {
	it('tells hum where it changes, and no further than anybody hears', () => {
		expect(humChange(effect({ hum_below_db: 46.8 }, { hum_below_db: 90 }))).toEqual(['46.8', 'over 90']);
		expect(humChange(effect({ hum_below_db: 60 }, { hum_below_db: 60 }))).toBeNull();
		expect(humChange(effect({ hum_below_db: null }, { hum_below_db: 60 }))).toBeNull();
	});

	it('on another run is its grade first, then its hum, then its level', () => {
		expect(otherWords(effect({ grade: 'fix' }, { grade: 'clear' }))).toBe('fix → clear');
		expect(
			otherWords(effect({ grade: 'clear', hum_below_db: 80 }, { grade: 'clear', hum_below_db: 75 }))
		).toBe('hum 80.0 → 75.0 dB');
		expect(
			otherWords(effect({ grade: 'clear', hum_below_db: 80 }, { grade: 'clear', hum_below_db: 80 }))
		).toBe('level moves');
	});
});
