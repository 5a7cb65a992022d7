import { beforeEach, describe, expect, it, vi } from 'vitest';
import { OFFLINE, Trouble, type Schemas } from '../api/client';
import * as queries from '../api/queries';
import { ASK_AGAIN_MS, isTable, LineEntry, PAUSE_MS } from './entry.svelte';

vi.mock('../api/queries', { spy: true });

const readings = (sentence: string) =>
	({ readings: [{ sentence }], completions: [], edit: null }) as unknown as Schemas['Readings'];

describe('a line being typed', () => {
	let entry: LineEntry;
	let saved: Promise<void>;

	beforeEach(() => {
		vi.useFakeTimers();
		vi.resetAllMocks();
		saved = Promise.resolve();
		entry = new LineEntry(
			() => 'r',
			() => saved
		);
	});

	it('asks once, after a pause', async () => {
		vi.mocked(queries.readLines).mockResolvedValue(readings('x'));
		for (const text of ['k', 'ke', 'key']) entry.write(text);
		expect(entry.settled).toBe(false);
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		expect(queries.readLines).toHaveBeenCalledOnce();
		expect(vi.mocked(queries.readLines).mock.calls[0]?.slice(0, 2)).toEqual(['r', 'key']);
		expect([entry.settled, entry.readings?.readings[0]?.sentence]).toEqual([true, 'x']);
	});

	it('drops a late answer to an earlier text', async () => {
		let late: (got: Schemas['Readings']) => void = () => undefined;
		vi.mocked(queries.readLines).mockImplementationOnce(() => new Promise((done) => (late = done)));
		vi.mocked(queries.readLines).mockResolvedValueOnce(readings('second'));
		entry.write('first');
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		entry.write('second');
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		late(readings('first'));
		await vi.advanceTimersByTimeAsync(0);
		expect(entry.readings?.readings[0]?.sentence).toBe('second');
	});

	it('is read only when the edits before it are saved', async () => {
		let answered: () => void = () => undefined;
		saved = new Promise((done) => (answered = done));
		vi.mocked(queries.readLines).mockResolvedValue(readings('x'));
		entry.write('keys > desk 7');
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		expect(queries.readLines).not.toHaveBeenCalled();
		answered();
		await vi.advanceTimersByTimeAsync(0);
		expect(entry.settled).toBe(true);
		expect(queries.readLines).toHaveBeenCalledOnce();
	});

	it('says what the server said, and clears', async () => {
		vi.mocked(queries.readLines).mockRejectedValue(new Trouble(422, { ...OFFLINE, message: 'No.' }));
		entry.write('x');
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		expect(entry.trouble).toBe('No.');
		entry.clear();
		expect([entry.trouble, entry.readings, entry.settled]).toEqual([null, null, true]);
	});

	it('asks again by itself where the server was busy', async () => {
		vi.mocked(queries.readLines).mockRejectedValueOnce(new Trouble(503, { ...OFFLINE, message: 'Busy.' }));
		vi.mocked(queries.readLines).mockResolvedValueOnce(readings('x'));
		entry.write('keys > desk 7');
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		expect([entry.trouble, entry.settled]).toEqual(['Busy.', false]);
		await vi.advanceTimersByTimeAsync(ASK_AGAIN_MS);
		expect([entry.trouble, entry.settled, entry.readings?.readings[0]?.sentence]).toEqual([null, true, 'x']);
	});

	it('does not ask again for a text that is gone', async () => {
		vi.mocked(queries.readLines).mockRejectedValueOnce(new Trouble(503, { ...OFFLINE, message: 'Busy.' }));
		entry.write('keys > desk 7');
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		entry.clear();
		await vi.advanceTimersByTimeAsync(ASK_AGAIN_MS);
		expect(queries.readLines).toHaveBeenCalledOnce();
	});

	it('tells a table from lines', async () => {
		expect(isTable('ch,who\n1,Kick')).toBe(true);
		expect(isTable('keys > desk 7, 18 m\nbass > desk 2')).toBe(false);
		expect(isTable('keys to desk 7, 18 m')).toBe(false);
		expect(isTable('drum kit: kick, snare, 2 toms on 1-4')).toBe(false);
		expect(isTable('kick, snare on 1-2\nhat, tom on 3-4')).toBe(false);
		expect(isTable('Channel\tWho\t+48V\n1\tKick\tno')).toBe(true);
		vi.mocked(queries.readInputList).mockResolvedValue(readings('table'));
		entry.write('ch,who\n1,Kick');
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		expect(queries.readInputList).toHaveBeenCalledOnce();
	});

	it('asks nothing without a rig', async () => {
		const bare = new LineEntry(
			() => null,
			() => saved
		);
		bare.write('x');
		await vi.advanceTimersByTimeAsync(PAUSE_MS);
		expect(queries.readLines).not.toHaveBeenCalled();
	});
});
