/** What the line check keeps on the device: rigs as they were read last, and entries until the server has them. */
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Schemas } from './client';
import type { Card, CheckedRun, NewEntry } from '../domain/check';

/** A rig's check as it was read last. */
export interface KeptCheck {
	rig: string;
	/** Who read it: nobody else sees it on this device. */
	person: string;
	name: string;
	runs: CheckedRun[];
	cards: Record<string, Card>;
	log: Schemas['RigLog'];
	/** The check beside the runs; what was kept before there was one has none. */
	round?: Schemas['Round'] | null;
	/** Connecting it in order; what was kept before hook-up went on without a network has none. */
	hookUp?: Schemas['HookUp'];
	/** When the doors open, where that was known. */
	doorsAt?: string | null;
}

/** A photo that has not been sent yet. */
export interface KeptPhoto {
	id: string;
	rig: string;
	person: string;
	picture: Blob;
}

interface Kept extends DBSchema {
	checks: { key: string; value: KeptCheck };
	/** In the order in which they were made. */
	photos: { key: string; value: KeptPhoto; indexes: { rig: string } };
	unsent: { key: number; value: { rig: string; person: string; entry: NewEntry }; indexes: { rig: string } };
}

let opened: Promise<IDBPDatabase<Kept>> | null = null;

function database(): Promise<IDBPDatabase<Kept>> {
	opened ??= openDB<Kept>('ruvak-check', 2, {
		upgrade(db, before) {
			if (before < 1) {
				db.createObjectStore('checks', { keyPath: 'rig' });
				db.createObjectStore('unsent', { autoIncrement: true }).createIndex('rig', 'rig');
			}
			db.createObjectStore('photos', { keyPath: 'id' }).createIndex('rig', 'rig');
		}
	});
	// A browser that refused once (no room, a private window) may allow it later.
	opened.catch(() => (opened = null));
	return opened;
}

export const readCheck = async (rig: string): Promise<KeptCheck | undefined> =>
	(await database()).get('checks', rig);

export const keepCheck = async (check: KeptCheck): Promise<void> => {
	await (await database()).put('checks', check);
};

/** When somebody signs in or out. Entries that are not sent yet stay, for whoever made them. */
export const forgetChecks = async (): Promise<void> => (await database()).clear('checks');

export interface Unsent {
	place: number;
	entry: NewEntry;
}

/** Before anything else happens with an entry, so that a phone that dies keeps it. */
export const keepEntry = async (rig: string, person: string, entry: NewEntry): Promise<number> =>
	(await database()).add('unsent', { rig, person, entry });

/** Of a rig, made by one person: nobody sends another's under their own name. */
export async function readUnsent(rig: string, person: string): Promise<Unsent[]> {
	const store = (await database()).transaction('unsent').store;
	const result: Unsent[] = [];
	for await (const cursor of store.index('rig').iterate(rig)) {
		if (cursor.value.person === person) result.push({ place: cursor.primaryKey, entry: cursor.value.entry });
	}
	return result;
}

/** The server has them. */
export async function forgetUnsent(places: readonly number[]): Promise<void> {
	const writing = (await database()).transaction('unsent', 'readwrite');
	await Promise.all([...places.map((place) => writing.store.delete(place)), writing.done]);
}

export const keepPhoto = async (photo: KeptPhoto): Promise<void> => {
	await (await database()).put('photos', photo);
};

export const readPhotos = async (rig: string, person: string): Promise<KeptPhoto[]> =>
	(await (await database()).getAllFromIndex('photos', 'rig', rig)).filter((photo) => photo.person === person);

export const forgetPhoto = async (id: string): Promise<void> => (await database()).delete('photos', id);
