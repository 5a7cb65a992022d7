/** The ladder: what stands where on a scale in dBu, and where its words go so that none covers another. */
import type { Schemas } from '../api/client';

type Levels = Schemas['Levels'];

export interface Mark {
	kind: 'clip' | 'peak' | 'nominal' | 'arrives' | 'sides' | 'hum' | 'noise';
	words: string;
	levelDbu: number;
	y: number;
	/** Where its words stand; may be pushed away from y. */
	labelY: number;
	ghost: boolean;
}

export interface Scale {
	topDbu: number;
	bottomDbu: number;
	height: number;
}

const MARGIN = 10;
const LABEL_PITCH = 15;
const SIDES_ABOVE_DB = 10;
/** How far a loudspeaker's ladder goes down: it has no noise of its own to end at. */
const BELOW_DB = 40;

export const levelsOf = (input: Schemas['InputResult'] | undefined): Levels | undefined =>
	input?.levels.find((level) => level.active);

/** One scale for the levels now and those of a preview, so that the ghost can be compared. */
export function scaleFor(levels: readonly Levels[], height: number, amplified = false): Scale {
	const top = Math.max(...levels.flatMap((level) => [level.clip_dbu, level.peak_dbu, level.nominal_dbu]));
	const bottom = Math.min(
		...levels.map((level) => (amplified ? level.arriving_dbu - BELOW_DB : level.noise_dbu))
	);
	return { topDbu: Math.ceil(top / 5) * 5 + 3, bottomDbu: Math.floor(bottom / 5) * 5 - 3, height };
}

export function yOf(scale: Scale, levelDbu: number): number {
	const clamped = Math.min(scale.topDbu, Math.max(scale.bottomDbu, levelDbu));
	const share = (scale.topDbu - clamped) / (scale.topDbu - scale.bottomDbu);
	return MARGIN + share * (scale.height - 2 * MARGIN);
}

/**
 * `humDbu`: A-weighted, as it sounds; left out where the noise covers it. `unpowered`: nothing arrives yet.
 * `amplified`: a loudspeaker, which bears so much and wants nothing.
 */
export function marks(
	scale: Scale,
	now: Levels,
	after: Levels | undefined,
	humDbu: number | null = null,
	unpowered = false,
	amplified = false
): Mark[] {
	const made: Omit<Mark, 'labelY'>[] = [
		mark(scale, 'clip', amplified ? 'bears' : 'clips', now.clip_dbu, false),
		mark(scale, 'arrives', unpowered ? 'powered' : 'arrives', now.arriving_dbu, false)
	];
	if (!amplified) {
		made.push(mark(scale, 'nominal', 'wants', now.nominal_dbu, false));
		made.push(mark(scale, 'noise', 'noise', now.noise_dbu, false));
	}
	if (humDbu !== null && humDbu > now.noise_dbu) made.push(mark(scale, 'hum', 'hum', humDbu, false));
	// Where the centre is lost, what still passes is the difference between the sides: show where that stands.
	if (after === undefined && now.sides_dbu > now.arriving_dbu + SIDES_ABOVE_DB) {
		made.push(mark(scale, 'sides', 'sides', now.sides_dbu, false));
	}
	if (unpowered && after === undefined) return spread(made, scale.height);
	if (after === undefined) made.push(mark(scale, 'peak', 'peaks', now.peak_dbu, false));
	else made.push(mark(scale, 'arrives', 'would be', after.arriving_dbu, true));
	return spread(made, scale.height);
}

function mark(scale: Scale, kind: Mark['kind'], words: string, levelDbu: number, ghost: boolean) {
	return { kind, words, levelDbu, y: yOf(scale, levelDbu), ghost };
}

/** Pushes labels apart, first downwards from the top, then back up from the foot. */
function spread(made: Omit<Mark, 'labelY'>[], height: number): Mark[] {
	const sorted = made.map((each) => ({ ...each, labelY: each.y })).sort((one, other) => one.y - other.y);
	sorted.forEach((each, index) => {
		const above = sorted[index - 1];
		if (above) each.labelY = Math.max(each.labelY, above.labelY + LABEL_PITCH);
	});
	let limit = height - MARGIN / 2;
	for (const each of sorted.toReversed()) {
		each.labelY = Math.min(each.labelY, limit);
		limit = each.labelY - LABEL_PITCH;
	}
	return sorted;
}

/** Every 20 dB inside the scale. */
export function ticks(scale: Scale): number[] {
	const first = Math.floor(scale.topDbu / 20) * 20;
	const count = Math.floor((first - scale.bottomDbu) / 20) + 1;
	return Array.from({ length: count }, (_, index) => first - 20 * index);
}
