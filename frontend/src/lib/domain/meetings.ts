/** A field that two people changed, in words: where, what each wants there, who else. */
import type { Schemas } from '../api/client';

const LONGEST = 60;

export interface MeetingWords {
	place: string;
	yours: string;
	theirs: string;
	by: string;
}

export function inWords(one: Schemas['MeetingBody']): MeetingWords {
	const place = [one.id, one.key ?? one.field].filter((word) => word).join(', ');
	return {
		place: place.replaceAll('_', ' ') || one.kind,
		yours: shown(one.yours),
		theirs: shown(one.theirs),
		by: one.by
	};
}

function shown(value: unknown): string {
	if (value === null || value === undefined) return 'removed, or not known yet';
	if (typeof value === 'object' && 'name' in value) return String(value.name);
	if (typeof value === 'object' && 'value' in value) return String(value.value);
	const text = typeof value === 'string' ? value : JSON.stringify(value);
	return text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text;
}
