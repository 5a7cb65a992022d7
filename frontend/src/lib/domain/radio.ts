/** Frequencies of radio microphones, and of what else is in the air, as people type them. */
import type { Schemas } from '../api/client';

export type TakenBand = Schemas['TakenBand'];

const LOWEST_MHZ = 20;
const HIGHEST_MHZ = 8000;
const MOST = 16;
const MOST_BANDS = 64;
const LONGEST_NAME = 120;

/** "606.5 607,1": carriers in megahertz, a point or a comma before the decimals; null where that is not what it is. */
export function typedMhz(text: string): number[] | null {
	const words = text
		.replace(/mhz/gi, ' ')
		.split(/[;\s]+|,\s+/)
		.filter(Boolean);
	const values = words.map((word) => Number(word.replace(',', '.')));
	const isRight = values.every((value) => value >= LOWEST_MHZ && value <= HIGHEST_MHZ);
	return isRight && values.length <= MOST ? values : null;
}

/** "470-478 television; 606.7": bands and single carriers in megahertz, each with who uses it; null where that is not
 * what it is. */
export function typedBands(text: string): TakenBand[] | null {
	const bands: TakenBand[] = [];
	for (const part of text.split(/;|\n|,\s+/).map((each) => each.trim())) {
		if (!part) continue;
		const match = /^([\d.,]+)(?:\s*(?:-|–|to)\s*([\d.,]+))?\s*(?:mhz\b)?(?:\s+(.*))?$/i.exec(part);
		const [low, high] = [match?.[1], match?.[2] ?? match?.[1]].map((mhz) =>
			Number((mhz ?? '').replace(',', '.'))
		);
		if (!match || !isCarrier(low) || !isCarrier(high)) return null;
		bands.push({ low_mhz: Math.min(low, high), high_mhz: Math.max(low, high), by: match[3] ?? '' });
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
