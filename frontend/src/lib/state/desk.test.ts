import { QueryClient } from '@tanstack/svelte-query';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { OFFLINE, Trouble, type Schemas } from '../api/client';
import * as queries from '../api/queries';
import * as views from '../api/rig-view';
import type { RigView } from '../api/rig-view';
import { set } from '../domain/ops';
import { Desk } from './desk.svelte';

class Storage {
	private kept = new Map<string, string>();
	getItem = (key: string) => this.kept.get(key) ?? null;
	setItem = (key: string, value: string) => void this.kept.set(key, value);
	removeItem = (key: string) => void this.kept.delete(key);
}

const edit = (label: string): Schemas['Edit'] => ({
	label,
	ops: [set('kit', 'lead-31', 'length_m', 20)]
});
const state = (version: number): RigView =>
	({ version: `${version}.0`, rig: { id: 'r' }, undo_label: 'x', redo_label: null }) as unknown as RigView;
/** An edit saved on one version as the next. */
const saved = (base: number): Schemas['EditOutcome'] => ({
	base: `${base}.0`,
	version: `${base + 1}.0`,
	saved_at: '',
	changed: [],
	undo_label: 'x',
	redo_label: null
});
const conflict = new Trouble(409, {
	...OFFLINE,
	code: 'conflict',
	message: 'Somebody saved.',
	current_version: '5.0'
});
const silence = new Trouble(0, OFFLINE);

vi.mock('../api/queries', { spy: true });
vi.mock('../api/rig-view', { spy: true });

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
		vi.mocked(views.viewOf).mockImplementation(async (_, record) => record as RigView);
		vi.mocked(views.fetchRecord).mockImplementation(async () => state(9));
		client = new QueryClient();
		desk = new Desk(client);
		desk.open('r');
		client.setQueryData(['rig', 'r'], state(0));
	});

	it('saves on the version that is on screen and shows what came back', async () => {
		vi.mocked(queries.saveEdit).mockResolvedValue(saved(0));
		await desk.edit(edit('a'));
		expect(queries.saveEdit).toHaveBeenCalledWith('r', '0.0', edit('a'), expect.any(String));
		expect(desk.state?.version).toBe('1.0');
		expect([desk.saving, desk.queued]).toEqual(['saved', 0]);
	});

	it('sends edits made in haste in order, made on what is on screen, and shows the last', async () => {
		let version = 0;
		vi.mocked(queries.saveEdit).mockImplementation(async () => saved(version++));
		await Promise.all([desk.edit(edit('a')), desk.edit(edit('b')), desk.edit(edit('c'))]);
		const calls = vi.mocked(queries.saveEdit).mock.calls;
		expect(calls.map((call) => [call[1], call[2].label])).toEqual([
			['0.0', 'a'],
			['0.0', 'b'],
			['0.0', 'c']
		]);
		expect(new Set(calls.map((call) => call[3])).size).toBe(3);
		expect([desk.state?.version, desk.queued]).toEqual(['3.0', 0]);
	});

	it('does not let the next edit wait for the analysis of the last', async () => {
		let answer: (view: RigView) => void = () => undefined;
		vi.mocked(views.viewOf).mockImplementationOnce(() => new Promise((resolve) => (answer = resolve)));
		vi.mocked(queries.saveEdit).mockResolvedValueOnce(saved(0)).mockResolvedValueOnce(saved(1));
		const first = desk.edit(edit('a'));
		await desk.edit(edit('b'));
		expect(desk.state?.version).toBe('2.0');
		answer(state(1));
		await first;
		expect([desk.state?.version, desk.queued]).toEqual(['2.0', 0]);
	});

	it('fetches the record where others have saved in between', async () => {
		vi.mocked(queries.saveEdit).mockResolvedValue(saved(4));
		await desk.edit(edit('a'));
		expect(desk.state?.version).toBe('9.0');
	});

	it('notices what others have saved, but not while something of its own is on the way', async () => {
		const fetched = vi.spyOn(client, 'invalidateQueries');
		vi.mocked(views.fetchVersion).mockResolvedValue({ version: '0.0', saved_at: '' });
		await desk.watch();
		expect(fetched).not.toHaveBeenCalled();
		vi.mocked(views.fetchVersion).mockResolvedValue({ version: '1.0', saved_at: '' });
		desk.queued = 1;
		await desk.watch();
		expect(fetched).not.toHaveBeenCalled();
		desk.queued = 0;
		await desk.watch();
		expect(fetched).toHaveBeenCalledOnce();
	});

	it('keeps an edit that met somebody else’s, until it is decided', async () => {
		vi.mocked(queries.saveEdit).mockRejectedValueOnce(conflict).mockResolvedValue(saved(5));
		await desk.edit(edit('mine'));
		expect(desk.waiting?.label).toBe('mine');
		client.setQueryData(['rig', 'r'], state(5));
		await desk.again();
		expect(queries.saveEdit).toHaveBeenLastCalledWith('r', '5.0', edit('mine'), expect.any(String));
		expect(desk.waiting).toBeNull();
	});

	it('keeps what the server never answered about, over a reload too', async () => {
		vi.mocked(queries.saveEdit).mockRejectedValueOnce(silence).mockResolvedValue(saved(0));
		await desk.edit(edit('lost'));
		expect([desk.saving, desk.unsent?.label]).toEqual(['unsaved', 'lost']);
		const reloaded = new Desk(client);
		expect([reloaded.saving, reloaded.unsent?.label]).toEqual(['unsaved', 'lost']);
		reloaded.goTo({ station: 'runs', rig: 'another', run: null });
		expect(reloaded.unsent?.label, 'an address opened meanwhile loses nothing').toBe('lost');
		await reloaded.again();
		const [first, second] = vi.mocked(queries.saveEdit).mock.calls;
		expect(second, 'the same edit by the same name, in the rig it was made in').toEqual(first);
		expect(reloaded.rigId).toBe('r');
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
		vi.mocked(queries.undoEdit).mockResolvedValue(saved(1));
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

	it('goes to what an address names, and remembers the rig for an address that names none', () => {
		desk.goTo({ station: 'runs', rig: 's', run: 'choir' });
		expect([desk.rigId, desk.runId, desk.lastRig()]).toEqual(['s', 'choir', 's']);
		desk.goTo({ station: 'kit', rig: 's', run: null });
		expect(desk.runId, 'another station keeps the selection').toBe('choir');
		desk.goTo({ station: 'runs', rig: 's', run: null });
		desk.goTo({ station: 'rigs', rig: null, run: null });
		expect([desk.rigId, desk.runId]).toEqual(['s', null]);
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
