/** A response's corners in words. */
import type { Schemas } from '../api/client';
import { db, hertz } from './format';

type Corners = Pick<Schemas['Response'], 'passband_db' | 'passband_low_hz' | 'passband_high_hz'>;

/** Where it is 3 dB under its passband; where 1 kHz lies under the passband itself, by how much. */
export function cornerWords(response: Corners): string {
	const { passband_low_hz: low, passband_high_hz: high, passband_db: above } = response;
	const corners = [low, high].filter((one): one is number => one !== null).map(hertz);
	const down = corners.length > 0 ? `; 3 dB down at ${corners.join(' and ')}` : '';
	return above >= 0.5 ? `${down}, counted from its passband, ${db(above)} over 1 kHz` : down;
}
