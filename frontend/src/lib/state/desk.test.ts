import { QueryClient } from '@tanstack/svelte-query';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { OFFLINE, Trouble, type Schemas } from '../api/client';
import * as queries from '../api/queries';
import { Desk } from './desk.svelte';

type RigState = Schemas['RigState'];

class Storage {
	private kept = new Map<string, string>();
	getItem = (key: string) => this.kept.get(key) ?? null;
	setItem = (key: string, value: string) => void this.kept.set(key, value);
	removeItem = (key: string) => void this.kept.delete(key);
}

const edit = (label: string): Schemas['Edit'] => ({
	label,
	ops: [{ op: 'set_length', item: 'lead-31', length_m: 20 }]
});
const state = (version: number): RigState =>
	({ version, rig: { id: 'r' }, undo_label: 'x', redo_label: null }) as unknown as RigState;
const conflict = new Trouble(409, { ...OFFLINE, code: 'conflict', message: 'Somebody saved.' });
const silence = new Trouble(0, OFFLINE);

vi.mock('../api/queries', { spy: true });

describe('the desk', () => {
	let client: QueryClient;
	let desk: Desk;

	beforeEach(() => {
		vi.stubGlobal('localStorage', new Storage());
		vi.stubGlobal('sessionStorage', new Storage());
		vi.resetAllMocks();
		vi.mocked(queries.rigQuery).mockImplementation(
			(id) => ({ queryKey: ['rig', id] }) as ReturnType<typeof queries.rigQuery>
		);
		client = new QueryClient();
		desk = new Desk(client);
		desk.open('r');
		client.setQueryData(['rig', 'r'], state(0));
	});

	it('saves on the version that is on screen and shows what came back', async () => {
		vi.mocked(queries.saveEdit).mockResolvedValue(state(1));
		await desk.edit(edit('a'));
		expect(queries.saveEdit).toHaveBeenCalledWith('r', 0, edit('a'));
		expect(desk.state?.version).toBe(1);
		expect([desk.saving, desk.queued]).toEqual(['saved', 0]);
	});

	it('lets edits made in haste wait for each other', async () => {
		let version = 0;
		vi.mocked(queries.saveEdit).mockImplementation(async () => state(++version));
		await Promise.all([desk.edit(edit('a')), desk.edit(edit('b')), desk.edit(edit('c'))]);
		expect(vi.mocked(queries.saveEdit).mock.calls.map((call) => call[1])).toEqual([0, 1, 2]);
	});

	it('keeps an edit that met somebody else’s, until it is decided', async () => {
		vi.mocked(queries.saveEdit).mockRejectedValueOnce(conflict).mockResolvedValue(state(6));
		await desk.edit(edit('mine'));
		expect(desk.waiting?.label).toBe('mine');
		client.setQueryData(['rig', 'r'], state(5));
		await desk.again();
		expect(queries.saveEdit).toHaveBeenLastCalledWith('r', 5, edit('mine'));
		expect(desk.waiting).toBeNull();
	});

	it('keeps what the server never answered about, over a reload too', async () => {
		vi.mocked(queries.saveEdit).mockRejectedValueOnce(silence).mockResolvedValue(state(1));
		await desk.edit(edit('lost'));
		expect([desk.saving, desk.unsent?.label]).toEqual(['unsaved', 'lost']);
		const reloaded = new Desk(client);
		expect([reloaded.saving, reloaded.unsent?.label, reloaded.rigId]).toEqual(['unsaved', 'lost', 'r']);
		await reloaded.again();
		expect(new Desk(client).unsent).toBeNull();
	});

	it('does not try again what was refused for good', async () => {
		const refused = new Trouble(422, { ...OFFLINE, code: 'bad_edit', message: 'No.' });
		vi.mocked(queries.saveEdit).mockRejectedValue(refused);
		await desk.edit(edit('bad'));
		expect(desk.trouble?.message).toBe('No.');
		expect([desk.unsent, desk.waiting, desk.saving]).toEqual([null, null, 'saved']);
	});

	it('undoes only when there is something to undo', async () => {
		vi.mocked(queries.undoEdit).mockResolvedValue(state(2));
		await desk.undo();
		await desk.redo();
		expect(queries.undoEdit).toHaveBeenCalledOnce();
		expect(queries.redoEdit).not.toHaveBeenCalled();
	});

	it('works without any storage', async () => {
		vi.stubGlobal('localStorage', undefined);
		vi.stubGlobal('sessionStorage', undefined);
		const bare = new Desk(client);
		bare.open('r');
		expect([bare.rigId, bare.unsent]).toEqual(['r', null]);
	});

	it('drops a preview when another run is selected or another rig opened', () => {
		const remedy = { id: 'm' } as Schemas['Remedy'];
		desk.select('one');
		desk.lookAt(remedy);
		desk.lookAway('other');
		expect(desk.preview?.id).toBe('m');
		desk.select('two');
		expect(desk.preview).toBeNull();
	});
});
