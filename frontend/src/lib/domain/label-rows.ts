/** Labels over pieces that lie close together: one that would run into its neighbour stands a row higher. */
export interface PlacedLabel {
	x: number;
	y: number;
	words: string;
}

/** About how wide a letter of a piece's label is, in pixels. */
const LETTER_PX = 6.3;
const BETWEEN_PX = 6;
const ROW_PX = 14;

export function inRows(labels: readonly PlacedLabel[]): PlacedLabel[] {
	const ends = new Map<string, number>();
	const result = new Map<PlacedLabel, PlacedLabel>();
	for (const label of [...labels].sort((a, b) => a.x - b.x)) {
		const half = (label.words.length * LETTER_PX) / 2;
		let row = 0;
		while ((ends.get(`${label.y} ${row}`) ?? -Infinity) > label.x - half - BETWEEN_PX) row += 1;
		ends.set(`${label.y} ${row}`, label.x + half);
		result.set(label, { ...label, y: label.y - row * ROW_PX });
	}
	return labels.map((label) => result.get(label) ?? label);
}
