import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { firstOnTop, humChange, otherWords } from './effects';

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

describe('the first remedy shown', () => {
	const remedy = (id: string, grade: string, helps = true) =>
		({ id, helps, effects: [{ after: { grade } }] }) as unknown as Schemas['Remedy'];

	it('stays on top while nothing ends better', () => {
		const [a, b] = [remedy('a', 'clear'), remedy('b', 'clear')];
		expect(firstOnTop([b], [a, b]).map((one) => one.id)).toEqual(['b', 'a']);
		expect(firstOnTop([], [a, b]).map((one) => one.id)).toEqual(['a', 'b']);
	});

	it('gives way to a better one, and is gone where it is not among them', () => {
		const [watch, clear] = [remedy('watch', 'watch'), remedy('clear', 'clear')];
		expect(firstOnTop([watch], [clear, watch])).toEqual([clear, watch]);
		expect(firstOnTop([remedy('other', 'clear')], [clear])).toEqual([clear]);
	});
});
