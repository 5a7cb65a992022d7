/** A run's levels lying in its line of the list, all runs on one scale, so that they can be compared. */
import type { Schemas } from '../api/client';

export const WIDTH = 150;
const BOTTOM_DBU = -120;
const TOP_DBU = 40;
export const TICKS_DBU = [-100, -60, -20, 20] as const;

export const xOf = (levelDbu: number): number =>
	((Math.min(TOP_DBU, Math.max(BOTTOM_DBU, levelDbu)) - BOTTOM_DBU) / (TOP_DBU - BOTTOM_DBU)) * WIDTH;

export interface LevelBar {
	/** From the left: noise up to here, hum up to here, programme up to here. */
	noise: number;
	hum: number;
	arrives: number;
	clip: number;
}

/** `humDbu`: null where there is none to tell. Nothing is drawn for noise where a loudspeaker ends the run. */
export function levelBar(levels: Schemas['Levels'], humDbu: number | null, amplified: boolean): LevelBar {
	const noise = amplified ? 0 : xOf(levels.noise_dbu);
	return {
		noise,
		hum: humDbu === null ? noise : Math.max(noise, xOf(humDbu)),
		arrives: xOf(levels.arriving_dbu),
		clip: xOf(levels.clip_dbu)
	};
}
