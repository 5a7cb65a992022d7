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

const drawing = { pieces: [] } as unknown as Schemas['RunDrawing'];

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
		desk.selection.open('r');
		client.setQueryData(['rig', 'r'], state(0));
	});

	it('saves on the version that is on screen and shows what came back', async () => {
		vi.mocked(queries.saveEdit).mockResolvedValue(saved(0));
		await desk.sync.edit(edit('a'));
		expect(queries.saveEdit).toHaveBeenCalledWith('r', '0.0', edit('a'), expect.any(String));
		expect(desk.sync.state?.version).toBe('1.0');
		expect([desk.sync.saving, desk.sync.queued]).toEqual(['saved', 0]);
	});

	it('sends edits made in haste in order, made on what is on screen, and shows the last', async () => {
		let version = 0;
		vi.mocked(queries.saveEdit).mockImplementation(async () => saved(version++));
		await Promise.all([desk.sync.edit(edit('a')), desk.sync.edit(edit('b')), desk.sync.edit(edit('c'))]);
		const calls = vi.mocked(queries.saveEdit).mock.calls;
		expect(calls.map((call) => [call[1], call[2].label])).toEqual([
			['0.0', 'a'],
			['0.0', 'b'],
			['0.0', 'c']
		]);
		expect(new Set(calls.map((call) => call[3])).size).toBe(3);
		expect([desk.sync.state?.version, desk.sync.queued]).toEqual(['3.0', 0]);
	});

	it('does not let the next edit wait for the analysis of the last', async () => {
		let answer: (view: RigView) => void = () => undefined;
		vi.mocked(views.viewOf).mockImplementationOnce(() => new Promise((resolve) => (answer = resolve)));
		vi.mocked(queries.saveEdit).mockResolvedValueOnce(saved(0)).mockResolvedValueOnce(saved(1));
		const first = desk.sync.edit(edit('a'));
		await desk.sync.edit(edit('b'));
		expect(desk.sync.state?.version).toBe('2.0');
		answer(state(1));
		await first;
		expect([desk.sync.state?.version, desk.sync.queued]).toEqual(['2.0', 0]);
	});

	it('fetches the record where others have saved in between', async () => {
		vi.mocked(queries.saveEdit).mockResolvedValue(saved(4));
		await desk.sync.edit(edit('a'));
		expect(desk.sync.state?.version).toBe('9.0');
	});

	it('shows what was saved as soon as its analysis can be had, and takes the notice away', async () => {
		const busy = new Trouble(503, { ...OFFLINE, code: 'busy', message: 'Busy.' });
		vi.mocked(views.viewOf).mockRejectedValueOnce(busy);
		vi.mocked(queries.saveEdit).mockResolvedValue(saved(0));
		await desk.sync.edit(edit('a'));
		expect([desk.sync.state?.version, desk.sync.trouble?.message]).toEqual(['0.0', 'Busy.']);
		vi.mocked(views.fetchVersion).mockResolvedValue({ version: '1.0', saved_at: '' });
		vi.spyOn(client, 'invalidateQueries').mockImplementation(async () => {
			client.setQueryData(['rig', 'r'], state(1));
		});
		await desk.sync.watch();
		expect([desk.sync.state?.version, desk.sync.trouble]).toEqual(['1.0', null]);
	});

	it('looks at nothing that was solved on another version', () => {
		const after = { run: 'a' } as unknown as Schemas['RunAnalysis'];
		desk.preview.lookAt({ id: 'x', title: '', after, edit: edit('a'), version: '0.0' });
		expect(desk.preview.of('a', '0.0')?.id).toBe('x');
		expect([desk.preview.of('a', '1.0'), desk.preview.of('b', '0.0')]).toEqual([null, null]);
	});

	it('notices what others have saved, but not while something of its own is on the way', async () => {
		const fetched = vi.spyOn(client, 'invalidateQueries');
		vi.mocked(views.fetchVersion).mockResolvedValue({ version: '0.0', saved_at: '' });
		await desk.sync.watch();
		expect(fetched).not.toHaveBeenCalled();
		vi.mocked(views.fetchVersion).mockResolvedValue({ version: '1.0', saved_at: '' });
		desk.sync.queued = 1;
		await desk.sync.watch();
		expect(fetched).not.toHaveBeenCalled();
		desk.sync.queued = 0;
		await desk.sync.watch();
		expect(fetched).toHaveBeenCalledOnce();
	});

	it('keeps an edit that met somebody else’s, until it is decided', async () => {
		vi.mocked(queries.saveEdit).mockRejectedValueOnce(conflict).mockResolvedValue(saved(5));
		await desk.sync.edit(edit('mine'));
		expect(desk.sync.waiting?.label).toBe('mine');
		client.setQueryData(['rig', 'r'], state(5));
		await desk.sync.again();
		expect(queries.saveEdit).toHaveBeenLastCalledWith('r', '5.0', edit('mine'), expect.any(String));
		expect(desk.sync.waiting).toBeNull();
	});

	it('keeps what the server never answered about, over a reload too', async () => {
		vi.mocked(queries.saveEdit).mockRejectedValueOnce(silence).mockResolvedValue(saved(0));
		await desk.sync.edit(edit('lost'));
		expect([desk.sync.saving, desk.sync.unsent?.label]).toEqual(['unsaved', 'lost']);
		const reloaded = new Desk(client);
		expect([reloaded.sync.saving, reloaded.sync.unsent?.label]).toEqual(['unsaved', 'lost']);
		reloaded.selection.goTo({ station: 'runs', rig: 'another', run: null });
		expect(reloaded.sync.unsent?.label, 'an address opened meanwhile loses nothing').toBe('lost');
		await reloaded.sync.again();
		const [first, second] = vi.mocked(queries.saveEdit).mock.calls;
		expect(second, 'the same edit by the same name, in the rig it was made in').toEqual(first);
		expect(reloaded.selection.rigId).toBe('r');
		expect(new Desk(client).sync.unsent).toBeNull();
	});

	it('does not try again what was refused for good', async () => {
		const refused = new Trouble(422, { ...OFFLINE, code: 'bad_edit', message: 'No.' });
		vi.mocked(queries.saveEdit).mockRejectedValue(refused);
		await desk.sync.edit(edit('bad'));
		expect(desk.sync.trouble?.message).toBe('No.');
		expect([desk.sync.unsent, desk.sync.waiting, desk.sync.saving]).toEqual([null, null, 'saved']);
	});

	it('undoes only when there is something to undo', async () => {
		vi.mocked(queries.undoEdit).mockResolvedValue(saved(1));
		await desk.sync.undo();
		await desk.sync.redo();
		expect(queries.undoEdit).toHaveBeenCalledOnce();
		expect(queries.redoEdit).not.toHaveBeenCalled();
	});

	it('works without any storage', async () => {
		vi.stubGlobal('localStorage', undefined);
		vi.stubGlobal('sessionStorage', undefined);
		const bare = new Desk(client);
		bare.selection.open('r');
		expect([bare.selection.rigId, bare.sync.unsent]).toEqual(['r', null]);
	});

	it('goes to what an address names, and remembers the rig for an address that names none', () => {
		desk.selection.goTo({ station: 'runs', rig: 's', run: 'choir' });
		expect([desk.selection.rigId, desk.selection.runId, desk.selection.lastRig()]).toEqual([
			's',
			'choir',
			's'
		]);
		desk.selection.goTo({ station: 'kit', rig: 's', run: null });
		expect(desk.selection.runId, 'another station keeps the selection').toBe('choir');
		desk.selection.goTo({ station: 'runs', rig: 's', run: null });
		desk.selection.goTo({ station: 'rigs', rig: null, run: null });
		expect([desk.selection.rigId, desk.selection.runId]).toEqual(['s', null]);
	});

	it('drops a preview when another run is selected or another rig opened', () => {
		const remedy = { id: 'm' } as Schemas['Remedy'];
		desk.selection.select('one');
		desk.preview.lookAt({ ...remedy, version: '0.0' });
		desk.preview.lookAway('other');
		expect(desk.preview.look?.id).toBe('m');
		desk.selection.select('two');
		expect(desk.preview.look).toBeNull();
	});

	it('draws the selected run while its figures are computed', async () => {
		const withRun = (version: number) =>
			({ ...state(version), rig: { id: 'r', runs: [{ id: 'slides' }] } }) as unknown as RigView;
		client.setQueryData(['rig', 'r'], withRun(0));
		desk.selection.select('slides');
		vi.mocked(queries.saveEdit).mockResolvedValue(saved(0));
		vi.mocked(views.fetchDrawing).mockResolvedValue(drawing);
		let finish: (view: RigView) => void = () => undefined;
		vi.mocked(views.viewOf).mockReturnValue(new Promise((resolve) => (finish = resolve)));
		const edited = desk.sync.edit(edit('shorter'));
		await vi.waitFor(() => expect(desk.sync.ahead?.run).toBe('slides'));
		expect(views.fetchDrawing).toHaveBeenCalledWith('r', '1.0', 'slides');
		finish(withRun(1));
		await edited;
		expect(desk.sync.ahead).toBeNull();
	});
});
