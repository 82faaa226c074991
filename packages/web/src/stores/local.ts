/**
 * The browser's own store: entries and intakes on their way, the draft at the counter, and what the server last said. Nothing here is
 * the truth once the server has it; nothing typed is only in memory.
 */
import type { EntryDraft, NewJobInput } from '@veglia/contract';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

export interface Waiting {
  readonly jobId: string;
  readonly by: string;
  readonly draft: EntryDraft;
  /** Order of writing within this browser. */
  readonly turn?: number;
  /** The server's words, where it refused: needs a person. */
  readonly refused?: string;
}

/** A set checked in while the server was away. */
export interface WaitingIntake {
  readonly id: string;
  readonly at: string;
  readonly request: NewJobInput;
  readonly refused?: string;
}

/** A photo on its way; kept until the server has it. */
export interface WaitingPhoto {
  readonly id: string;
  readonly name: string;
  readonly blob: Blob;
  readonly at: string;
  /** The server's words, where it refused after the entry had gone: needs a person. */
  readonly refused?: string;
}

interface LocalSchema extends DBSchema {
  photos: { key: string; value: WaitingPhoto };
  waiting: { key: number; value: Waiting; indexes: { job: string } };
  intakes: { key: string; value: WaitingIntake };
  drafts: { key: string; value: { readonly name: string; readonly at: string; readonly content: unknown } };
  /** Replies by path, as they came. */
  kept: { key: string; value: { readonly path: string; readonly at: string; readonly reply: unknown } };
}

let opened: Promise<IDBPDatabase<LocalSchema>> | undefined;

export function local(): Promise<IDBPDatabase<LocalSchema>> {
  opened ??= openDB<LocalSchema>('veglia', 4, {
    upgrade(db, from, _to, transaction) {
      if (from < 1) db.createObjectStore('waiting', { keyPath: 'turn', autoIncrement: true }).createIndex('job', 'jobId');
      if (from < 2) {
        db.createObjectStore('intakes', { keyPath: 'id' });
        db.createObjectStore('drafts', { keyPath: 'name' });
        db.createObjectStore('kept', { keyPath: 'path' });
      }
      if (from < 3) db.createObjectStore('photos', { keyPath: 'id' });
      // Replies kept from before say odds where they now say probability: they are asked for again. What is on its way upgrades itself.
      if (from > 1 && from < 4) void transaction.objectStore('kept').clear();
    },
    // Another tab has the old one open: it must let go before this one can go on.
    blocking(_current, _blocked, event) {
      (event.target as IDBDatabase).close();
      opened = undefined;
    },
  });
  return opened;
}

/** How much is on its way to the server; what it refused waits for a person, and not for the server. */
export async function unsent(): Promise<number> {
  const db = await local();
  const all = await Promise.all([db.getAll('waiting'), db.getAll('intakes'), db.getAll('photos')]);
  return all.flat().filter(({ refused }) => refused === undefined).length;
}
