import { describe, expect, it } from 'vitest';
import type { Drawing } from './strip-types';
import { socketWords } from './sockets';

const into = (...labels: string[]): Drawing =>
	({
		pieces: [
			{ kind: 'gear', column: 2, name: 'Desk', ins: labels.map((label) => ({ label })) },
			{ kind: 'lead', column: 1, name: 'M1', ins: [{ label: 'XLR female' }] }
		]
	}) as unknown as Drawing;

describe('where a run goes', () => {
	it('is named socket by socket, without their forms', () => {
		expect(socketWords(into('Mic 1, XLR'), false)).toBe('Mic 1');
		expect(socketWords(into('Line 7, 6.35 mm', 'Line 8, 6.35 mm'), true)).toBe('Desk: Line 7, Line 8');
	});

	it('is a range where many sockets follow each other', () => {
		expect(socketWords(into('Line 9, 6.35 mm', 'Line 10, 6.35 mm', 'Line 11, 6.35 mm'), false)).toBe(
			'Line 9\u201311'
		);
	});

	it('counts the rest where they do not', () => {
		expect(socketWords(into('Line 9', 'Line 11', 'Line 12', 'Aux in'), false)).toBe(
			'Line 9, Line 11 and 2 more'
		);
	});
});
