import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { marks, scaleFor, ticks, yOf } from './ladder';

const LEVELS: Schemas['Levels'] = {
	when: 'line',
	active: true,
	arriving_dbu: -50,
	sides_dbu: -12,
	peak_dbu: 8,
	nominal_dbu: 4,
	clip_dbu: 22,
	noise_dbu: -92,
	headroom_db: 14,
	gap_db: 54,
	boost_db: 24,
	short_db: 30
};

describe('a loudspeaker', () => {
	it('bears so much, wants nothing, and has no noise to stand on', () => {
		const loud = { ...LEVELS, arriving_dbu: 26, sides_dbu: -104, peak_dbu: 42, clip_dbu: 42.2 };
		const scale = scaleFor([loud], 210, true);
		const shown = marks(scale, loud, undefined, null, false, true);
		expect(shown.map((mark) => mark.words)).toEqual(['bears', 'peaks', 'arrives']);
		expect(scale.bottomDbu).toBeGreaterThan(-30);
	});
});

describe('the ladder', () => {
	const scale = scaleFor([LEVELS], 210);

	it('puts louder above quieter', () => {
		const order = marks(scale, LEVELS, undefined).map((mark) => mark.kind);
		expect(order).toEqual(['clip', 'peak', 'nominal', 'sides', 'arrives', 'noise']);
		expect(yOf(scale, 10)).toBeLessThan(yOf(scale, 9));
	});

	it('keeps everything on the scale, even what lies outside it', () => {
		expect(yOf(scale, 300)).toBeGreaterThanOrEqual(0);
		expect(yOf(scale, -300)).toBeLessThanOrEqual(210);
	});

	it('keeps its words apart', () => {
		const crowded = { ...LEVELS, nominal_dbu: 8, peak_dbu: 8.1, arriving_dbu: 7.9 };
		const labels = marks(scaleFor([crowded], 210), crowded, undefined).map((mark) => mark.labelY);
		labels.slice(1).forEach((y, index) => expect(y - (labels[index] ?? 0)).toBeGreaterThanOrEqual(15 - 1e-9));
		expect(Math.max(...labels)).toBeLessThanOrEqual(210);
	});

	it('shows a preview as a second mark on the same scale', () => {
		const after = { ...LEVELS, arriving_dbu: -18 };
		const ghosts = marks(scaleFor([LEVELS, after], 210), LEVELS, after).filter((mark) => mark.ghost);
		expect(ghosts.map((mark) => [mark.words, mark.levelDbu])).toEqual([['would be', -18]]);
	});

	it('says of a source without power what would arrive with it, and nothing of its peaks', () => {
		const words = marks(scale, LEVELS, undefined, null, true).map((mark) => mark.words);
		expect(words).toContain('powered');
		expect(words).not.toContain('arrives');
		expect(words).not.toContain('peaks');
		const keys = marks(scale, LEVELS, LEVELS, null, true).map((mark) => `${mark.kind} ${mark.ghost}`);
		expect(new Set(keys).size).toBe(keys.length);
	});

	it('has a figure every 20 dB', () => {
		expect(ticks(scale)).toEqual([20, 0, -20, -40, -60, -80]);
	});
});
