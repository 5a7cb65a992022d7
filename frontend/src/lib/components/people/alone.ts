/** What a view knows that goes on without an answer from the server. */
import type { AloneStation } from '../../domain/stations';

export interface Alone {
	station: AloneStation;
	/** Whether the server answers by now. */
	isBack: boolean;
	/** Asks the server again. */
	onask: () => void;
	/** Opens the whole page in its place. */
	onleave: () => void;
}
