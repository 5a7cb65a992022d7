import { describe, expect, it } from 'vitest';
import { addressOf, compareAddress, placeOf, type ScreenPlace } from './address';

const PLACES: ScreenPlace[] = [
	{ station: 'rigs', rig: null, run: null },
	{ station: 'people', rig: null, run: null },
	{ station: 'you', rig: null, run: null },
	{ station: 'runs', rig: null, run: null },
	{ station: 'kit', rig: null, run: null },
	{ station: 'runs', rig: 'midwinter-concert', run: null },
	{ station: 'runs', rig: 'midwinter-concert', run: 'choir-4' },
	{ station: 'changes', rig: 'rigs', run: null },
	{ station: 'runs', rig: 'kit', run: 'a/b?c#d %' }
];

describe('addresses', () => {
	it.each(PLACES)('name a place and lead back to it: %o', (place) => {
		expect(placeOf(addressOf(place))).toEqual(place);
	});

	it('of a rig alone lead to its runs', () => {
		expect(placeOf('/rigs/lantern-evening')).toEqual({ station: 'runs', rig: 'lantern-evening', run: null });
	});

	it.each([
		'/nowhere',
		'/rigs/r/nowhere',
		'/rigs/r/kit/slides',
		'/rigs/r/runs/a/b',
		'/kit/x',
		'/you/x',
		'/rigs/r/you',
		'/rigs/r/rigs',
		'/rigs/%E0%A4'
	])('%s leads nowhere', (address) => {
		expect(placeOf(address)).toBeNull();
	});

	it('keep the run out of stations that show none', () => {
		expect(addressOf({ station: 'kit', rig: 'r', run: 'slides' })).toBe('/rigs/r/kit');
	});

	it('of two rigs beside each other names both', () => {
		const address = compareAddress('hall', 'hall-2');
		expect(placeOf(address)).toEqual({ station: 'compare', rig: null, run: null, pair: ['hall', 'hall-2'] });
		expect(placeOf('/compare/hall')).toBeNull();
		expect(placeOf('/compare/a/b/c')).toBeNull();
	});
});
