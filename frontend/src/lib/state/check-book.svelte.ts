/** A rig's line check on this device: read from the server while there is one, from the device's own database without. */
import { Trouble } from '../api/client';
import {
	forgetPhoto,
	forgetUnsent,
	keepCheck,
	keepEntry,
	keepPhoto,
	readCheck,
	readPhotos,
	readUnsent,
	type KeptCheck,
	type KeptPhoto,
	type Unsent
} from '../api/check-store';
import {
	addEntries,
	addPhoto,
	isOffline,
	readCard,
	readLog,
	readNews,
	readOverview,
	readRound
} from '../api/log';
import { readHookUp } from '../api/hook-up';
import { fetchRecord, fetchVersion } from '../api/rig-view';
import {
	checkedRuns,
	keptCards,
	standings,
	withSteps,
	type CheckedRun,
	type Known,
	type NewEntry
} from '../domain/check';
import { newId } from '../domain/ids';

const EVERY_MS = 1000;
const HIDDEN_EVERY = 5;
const AT_ONCE = 100;
/** Cards read between two writes to the device. */
const KEPT_EVERY = 8;
const NOT_CURRENT = 410;
const BAD_REQUEST = 400;
const SERVER_ERROR = 500;

export class CheckBook {
	check = $state.raw<KeptCheck | null>(null);
	unsent = $state.raw<Unsent[]>([]);
	/** Whether the server answered last. */
	online = $state(true);
	/** Why entries are not taken, or the rig is not shown; they are kept here. */
	trouble = $state.raw<Trouble | null>(null);
	/** Whether this browser keeps anything; a private window may not. */
	keeps = $state(true);

	/** The run on screen: its card is read before the others. */
	shown: string | null = null;
	/** Photos of this device that the server does not have yet. */
	photos = $state.raw<KeptPhoto[]>([]);

	readonly entries = $derived<Known[]>([
		...(this.check?.log.entries ?? []),
		...this.unsent.map(({ entry }) => entry)
	]);
	readonly unsentIds = $derived(this.unsent.map(({ entry }) => entry.id));
	readonly standing = $derived(standings(this.entries, this.unsentIds, this.runs));
	/** Runs and what is checked beside them, in order. */
	readonly items = $derived(withSteps(this.runs, this.check?.round));

	/** Whether the log was read since this page was opened; from then on only what is new is asked for. */
	private isLogRead = false;
	private version: string | null = null;
	private timer: ReturnType<typeof setInterval> | undefined;
	private busy = false;
	/** Whether something came while a round was under way. */
	private again = false;
	private lastPlace = 0;
	/** What the device kept is read: whose it is may be known from it alone, and an answer is kept under a person. */
	private begun: Promise<void> = Promise.resolve();

	/** `person`: who is signed in; null where the server could not be asked: then whoever read it here last. */
	constructor(
		readonly rig: string,
		private person: string | null
	) {}

	async start(): Promise<void> {
		this.begun = this.readKept();
		await this.begun;
		let ticks = 0;
		this.timer = setInterval(() => {
			ticks += 1;
			if (!document.hidden || ticks % HIDDEN_EVERY === 0) void this.sync();
		}, EVERY_MS);
		await this.sync();
	}

	private async readKept(): Promise<void> {
		try {
			const kept = await readCheck(this.rig);
			this.person ??= kept?.person ?? null;
			if (kept && kept.person === this.person) this.check = kept;
			if (this.person !== null) {
				this.unsent = joined(await readUnsent(this.rig, this.person), this.unsent, ({ entry }) => entry.id);
				this.photos = joined(await readPhotos(this.rig, this.person), this.photos, ({ id }) => id);
			}
		} catch {
			this.keeps = false;
		}
	}

	/** When the doors open, for the time without a network. */
	async rememberDoors(doorsAt: string | null): Promise<void> {
		if (this.check && this.check.doorsAt !== doorsAt) await this.keep({ ...this.check, doorsAt });
	}

	stop(): void {
		clearInterval(this.timer);
	}

	/** Kept on the device first, then sent. */
	async add(given: NewEntry): Promise<void> {
		// The device keeps plain records only, and a form gives parts of its own state.
		const entry = $state.snapshot(given) as NewEntry;
		await this.begun;
		let place = --this.lastPlace;
		if (this.keeps) {
			try {
				place = await keepEntry(this.rig, this.person ?? '', entry);
			} catch {
				this.keeps = false;
			}
		}
		this.unsent = [...this.unsent, { place, entry }];
		void this.sync();
	}

	/** Kept on the device; its id goes into an entry, which may be sent before it. */
	async addPicture(picture: Blob): Promise<string> {
		await this.begun;
		const photo = { id: newId(), rig: this.rig, person: this.person ?? '', picture };
		if (this.keeps) await keepPhoto(photo).catch(() => (this.keeps = false));
		this.photos = [...this.photos, photo];
		void this.sync();
		return photo.id;
	}

	// No derived state: rounds go on for a moment after the view that shows this is gone.
	get runs(): CheckedRun[] {
		return this.check?.runs ?? [];
	}

	get cardsRead(): number {
		return Object.keys(this.check?.cards ?? {}).length;
	}

	/** One round: what is here goes out, what others did comes in. */
	async sync(): Promise<void> {
		if (this.busy) {
			this.again = true;
			return;
		}
		this.busy = true;
		this.again = false;
		try {
			await this.send();
			await this.read();
			await this.sendPhotos();
			this.online = true;
			this.trouble = null;
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			this.online = !isOffline(reason);
			if (this.online && reason.status !== NOT_CURRENT) this.trouble = reason;
		} finally {
			this.busy = false;
		}
		// An answer that came meanwhile goes out at once, also where its page has been left.
		if (this.again && this.online) void this.sync();
	}

	private async send(): Promise<void> {
		while (this.unsent.length > 0) {
			const some = this.unsent.slice(0, AT_ONCE);
			await addEntries(
				this.rig,
				some.map(({ entry }) => entry)
			);
			// The log is read before they are forgotten, so that an answer never vanishes for a moment.
			await this.readLog();
			const sent = some.map(({ entry }) => entry.id);
			if (this.keeps) await forgetUnsent(some.map(({ place }) => place)).catch(() => undefined);
			this.unsent = this.unsent.filter(({ entry }) => !sent.includes(entry.id));
		}
	}

	private async sendPhotos(): Promise<void> {
		for (const photo of this.photos) {
			try {
				await addPhoto(this.rig, photo.id, photo.picture);
			} catch (reason) {
				// One that the server will never take does not keep the others back.
				if (!(reason instanceof Trouble) || reason.status < BAD_REQUEST || reason.status >= SERVER_ERROR)
					throw reason;
			}
			if (this.keeps) await forgetPhoto(photo.id).catch(() => undefined);
			this.photos = this.photos.filter(({ id }) => id !== photo.id);
		}
	}

	private async read(): Promise<void> {
		const { version } = await fetchVersion(this.rig);
		if (version !== this.version || this.check === null) await this.readRuns();
		await this.readLog();
	}

	private async readRuns(): Promise<void> {
		const record = await fetchRecord(this.rig);
		const overview = await readOverview(this.rig, record.version);
		const runs = checkedRuns(record.rig.runs, overview);
		const round = await readRound(this.rig);
		const hookUp = await readHookUp(this.rig);
		const cards = keptCards(this.check?.cards ?? {}, this.runs, runs);
		const log = this.check?.log ?? { last: 0, entries: [], standings: [], duration: null, last_time: [] };
		await this.keep({
			...this.check,
			rig: this.rig,
			person: this.person ?? '',
			name: record.rig.name,
			runs,
			cards,
			log,
			round,
			hookUp
		});
		this.version = record.version;
		void this.readCards(record.version);
	}

	/** All of them, so that the check goes on without a network; one after the other, to leave the server to others. */
	private async readCards(version: string): Promise<void> {
		const missing = this.runs.map(({ run }) => run).filter((run) => this.check?.cards[run] === undefined);
		try {
			while (missing.length > 0) {
				const [run = ''] = missing.splice(Math.max(0, missing.indexOf(this.shown ?? '')), 1);
				const card = await readCard(this.rig, version, run);
				if (this.version !== version || this.check === null) return;
				this.check = { ...this.check, cards: { ...this.check.cards, [run]: card } };
				if (missing.length % KEPT_EVERY === 0) await this.keep(this.check);
			}
		} catch (reason) {
			if (!(reason instanceof Trouble)) throw reason;
			// Read again with the next round.
			if (this.version === version) this.version = null;
		}
	}

	private async readLog(): Promise<void> {
		const known = this.check?.log;
		if (this.isLogRead && known) {
			const news = await readNews(this.rig, known.last);
			if (news.count === known.entries.length + news.entries.length) {
				if (news.entries.length > 0 && this.check) {
					const entries = [...known.entries, ...news.entries];
					const last = Math.max(...news.entries.map(({ number }) => number));
					await this.keep({ ...this.check, log: { ...known, entries, last } });
				}
				return;
			}
		}
		const log = await readLog(this.rig);
		if (this.check === null) return;
		this.isLogRead = true;
		await this.keep({ ...this.check, log });
	}

	private async keep(check: KeptCheck): Promise<void> {
		this.check = check;
		if (this.keeps) await keepCheck($state.snapshot(check)).catch(() => (this.keeps = false));
	}
}

/** What was kept, then what is here and was not kept. */
function joined<Thing>(kept: Thing[], here: readonly Thing[], idOf: (thing: Thing) => string): Thing[] {
	const known = new Set(kept.map(idOf));
	return [...kept, ...here.filter((thing) => !known.has(idOf(thing)))];
}
