/** Frequencies of radio microphones as people type them. */

const LOWEST_MHZ = 20;
const HIGHEST_MHZ = 8000;
const MOST = 16;

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

export const saidMhz = (values: readonly number[]): string => values.join(' ');
