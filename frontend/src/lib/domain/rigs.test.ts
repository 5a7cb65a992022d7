import { describe, expect, it } from 'vitest';
import { alignmentKey, copyName, examples, idFrom, newRigFile, rigEdit } from './rigs';

describe('a new rig', () => {
	it('is a file of the open format', () => {
		const said = {
			name: ' Lantern Evening ',
			occasion: '',
			venue: 'Ferrywell Hall',
			mains_hz: 60,
			length_unit: 'ft'
		} as const;
		expect(JSON.parse(newRigFile(said))).toEqual({
			format: 'ruvak-rig',
			version: 2,
			id: 'lantern-evening',
			name: 'Lantern Evening',
			occasion: '',
			venue: { name: 'Ferrywell Hall', mains_hz: 60 },
			length_unit: 'ft'
		});
	});

	it('gets an id from any name', () => {
		expect(idFrom('  Église, 2e Fête!  ')).toBe('eglise-2e-fete');
		expect(idFrom('礼拝')).toBe('rig');
		expect(idFrom('x'.repeat(120))).toHaveLength(48);
		expect(idFrom(`${'x'.repeat(47)} y`)).toBe('x'.repeat(47));
	});
});

describe('examples', () => {
	it('speak the unit of the rig', () => {
		expect(examples('m')[0]).toContain('10 m');
		expect(examples('ft')[0]).toContain('30 ft');
	});
});

describe('a copy', () => {
	it('has the next number that is free', () => {
		expect(copyName('Concert', ['Concert'])).toBe('Concert 2');
		expect(copyName('Concert 2', ['Concert', 'Concert 2', 'Concert 3'])).toBe('Concert 4');
	});
});

describe('the rig as a whole', () => {
	it('says one thing at a time', () => {
		expect(rigEdit('mains_hz', 60).ops).toEqual([
			{ op: 'set', kind: 'venue', id: null, field: 'mains_hz', key: null, value: 60 }
		]);
	});

	it('knows both schools of alignment and neither', () => {
		const source = 'somewhere';
		expect(alignmentKey(undefined)).toBe('smpte-rp-155');
		expect(alignmentKey({ full_scale_dbu: 18, nominal_dbu: 0, source })).toBe('ebu-r-68');
		expect(alignmentKey({ full_scale_dbu: 20, nominal_dbu: 2, source })).toBeNull();
	});
});
