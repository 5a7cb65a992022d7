import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { byRole, deviceOf, linkToken, until } from './people';

describe('the token of a link', () => {
	it('stands behind the # and nowhere else', () => {
		expect(linkToken('#/link/aB3_-x')).toBe('aB3_-x');
		for (const other of ['', '#/link/', '#/link/a/b', '#/runs', '#/link/a b', `#/link/${'x'.repeat(129)}`])
			expect(linkToken(other)).toBeNull();
	});
});

describe('a browser', () => {
	it.each([
		['Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Mobile Safari/537.36', 'Phone'],
		['Mozilla/5.0 (Linux; Android 14) AppleWebKit/537.36 Safari/537.36', 'Tablet'],
		['Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36', 'Computer'],
		['', 'Computer']
	])('%s is a %s', (words, device) => {
		expect(deviceOf(words)).toBe(device);
	});
});

describe('people', () => {
	it('stand under their roles, the most trusted first, without empty headings', () => {
		const person = (name: string, role: Schemas['PersonSummary']['role']) =>
			({ name, role }) as Schemas['PersonSummary'];
		const groups = byRole([person('Vera', 'viewer'), person('Olu', 'owner'), person('Vic', 'viewer')]);
		expect(groups.map(({ heading, people }) => [heading, people.map(({ name }) => name)])).toEqual([
			['Owner', ['Olu']],
			['Viewers', ['Vera', 'Vic']]
		]);
	});
});

describe('an end', () => {
	it('has its day unless it is today', () => {
		const now = new Date(2027, 2, 14, 9, 0);
		expect(until(new Date(2027, 2, 14, 22, 30).toISOString(), now)).not.toMatch(/14/);
		expect(until(new Date(2027, 2, 15, 8, 30).toISOString(), now)).toMatch(/15/);
	});
});
