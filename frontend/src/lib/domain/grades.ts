/** The four grades: their word, and how a run or a rig is counted. Shape and word always go with the colour. */
import type { Schemas } from '../api/client';

export type Grade = Schemas['Grade'];

export const GRADES: readonly Grade[] = ['stop', 'fix', 'watch', 'clear'];

export const GRADE_WORDS: Record<Grade, string> = {
	stop: 'Stop',
	fix: 'Fix',
	watch: 'Watch',
	clear: 'Clear'
};

export const worstOf = (run: Schemas['RunAnalysis']): Grade => run.findings[0]?.grade ?? 'clear';
