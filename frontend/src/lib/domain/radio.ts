/** Frequencies of radio microphones, and of what else is in the air, as people type them. */
import type { Schemas } from '../api/client';

export type TakenBand = Schemas['TakenBand'];

const LOWEST_MHZ = 20;
const HIGHEST_MHZ = 8000;
const MOST = 16;
const MOST_BANDS = 64;
const LONGEST_NAME = 120;

const FIGURE = String.raw`(\d+(?:[.,]\d+)?)\s*(mhz|ghz)?`;
const BETWEEN = /^(?:[\s;,/&+]|\band\b)*$/i;
const PER_GHZ = 1000;

const inMhz = (figure: string, unit: string | undefined): number =>
	Number(figure.replace(',', '.')) * (unit?.toLowerCase() === 'ghz' ? PER_GHZ : 1);

/** "606.5 607,1": carriers in megahertz, a point or a comma before the decimals; null where that is not what it is. */
export function typedMhz(text: string): number[] | null {
	const figures = new RegExp(FIGURE, 'gi');
	const values = [...text.matchAll(figures)].map(([, figure = '', unit]) => inMhz(figure, unit));
	const isRight = BETWEEN.test(text.replace(figures, ' ')) && values.every(isCarrier);
	return isRight && values.length <= MOST ? values : null;
}

const BAND = new RegExp(
	String.raw`^(?:([^\d;]*[^\d;\s:(–-])\s*[:(]?\s*)?${FIGURE}(?:\s*(?:-|–|to)\s*${FIGURE})?\s*\)?(?:\s*:?\s+(\S.*))?$`,
	'i'
);

/** "470-478 television; hall: 606.7": bands and single carriers in megahertz, each with who uses it; null where that is
 * not what it is. */
export function typedBands(text: string): TakenBand[] | null {
	const bands: TakenBand[] = [];
	for (const part of text.split(/;|\n|,\s+/).map((each) => each.trim())) {
		if (!part) continue;
		const [, before = '', first = '', unit, second, secondUnit, behind = ''] = BAND.exec(part) ?? [];
		const low = inMhz(first, unit ?? secondUnit);
		const high = second === undefined ? low : inMhz(second, secondUnit ?? unit);
		if (!isCarrier(low) || !isCarrier(high)) return null;
		const by = [before, behind].filter(Boolean).join(' ');
		bands.push({ low_mhz: Math.min(low, high), high_mhz: Math.max(low, high), by });
	}
	return bands.length <= MOST_BANDS && bands.every(({ by }) => by.length <= LONGEST_NAME) ? bands : null;
}

const isCarrier = (mhz: number | undefined): mhz is number =>
	mhz !== undefined && mhz >= LOWEST_MHZ && mhz <= HIGHEST_MHZ;

export const saidBands = (bands: readonly TakenBand[]): string =>
	bands
		.map(({ low_mhz, high_mhz, by }) =>
			[low_mhz === high_mhz ? `${low_mhz}` : `${low_mhz}–${high_mhz}`, by].filter(Boolean).join(' ')
		)
		.join('; ');

export const saidMhz = (values: readonly number[]): string => values.join(' ');
