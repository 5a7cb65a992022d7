/** Keeps a field at what is saved, once no edit is on its way. */
import type { Attachment } from 'svelte/attachments';

/**
 * An edit undone before its figures came leaves the saved value as it was, so nothing tells the browser that
 * what was picked no longer stands; a text being typed is left alone.
 */
export function showSaved(value: string, settled: boolean): Attachment<HTMLSelectElement | HTMLInputElement> {
	return (field) => {
		const typing = field instanceof HTMLInputElement && document.activeElement === field;
		if (settled && !typing && field.value !== value) field.value = value;
	};
}
