/** Records of a rig with everything that nobody has said yet left open, as the file format leaves it open. */
import type { Schemas } from '../api/client';

type Gear = Schemas['Gear'];
type KitItem = Schemas['KitItem'];

const AS_OWNED = { condition: 'good', remark: '', drawn: null } as const;

export const newGear = (known: Pick<Gear, 'id' | 'name' | 'part'> & Partial<Gear>): Gear => ({
	settings: {},
	outlet: null,
	touch_a: null,
	earth_open: false,
	supply_fault_v: null,
	radio_mhz: [],
	at: null,
	host: null,
	contacts: [],
	mains_f: null,
	earth_f: null,
	sends: [],
	...AS_OWNED,
	...known
});

export const newKitItem = (known: Pick<KitItem, 'id' | 'tag' | 'part'> & Partial<KitItem>): KitItem => ({
	length_m: null,
	owned: true,
	installed: false,
	beside: null,
	loop_width_m: null,
	contacts: [],
	faults: [],
	...AS_OWNED,
	...known
});
