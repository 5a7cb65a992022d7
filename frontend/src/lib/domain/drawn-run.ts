/** A run of which only the drawing and the worst finding are known, for a strip: one that is typed, or as it once was. */
import type { Schemas } from '../api/client';

export function drawnRun(id: string, drawing: Schemas['RunDrawing'], finding: Schemas['Finding']) {
	return {
		run: id,
		drawing,
		findings: [finding],
		result: {
			run: id,
			sources: [],
			inputs: [],
			mixes: [],
			floating: [],
			phantom: [],
			cores: [],
			lead_currents: [],
			case_voltages: [],
			data: null
		},
		controls: [],
		notes: []
	};
}
