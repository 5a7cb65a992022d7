/** What a form shows of a rig's field: out of the rig's published schema. */
import described from '../api/form-fields.json';

export type FieldName = keyof typeof described;

export interface FormField {
	label: string;
	unit?: string;
	/** Its choices in words. */
	words?: Record<string, string>;
	minimum?: number;
	maximum?: number;
	longest?: number;
	needed?: boolean;
	/** What holds while nobody has said anything. */
	fallback?: string | number;
}

export const formField = (name: FieldName): FormField => described[name];
