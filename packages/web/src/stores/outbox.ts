/**
 * Entries on their way. What a technician wrote is in IndexedDB before anything is sent, leaves it only when the server
 * has said that it is stored, and is sent in order.
 */
import type { EntryDraft } from '@veglia/contract';
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

interface OutboxSchema extends DBSchema {
  waiting: { key: number; value: Waiting; indexes: { job: string } };
}

let opened: Promise<IDBPDatabase<OutboxSchema>> | undefined;

function database(): Promise<IDBPDatabase<OutboxSchema>> {
  opened ??= openDB<OutboxSchema>('veglia', 1, {
    upgrade(db) {
      db.createObjectStore('waiting', { keyPath: 'turn', autoIncrement: true }).createIndex('job', 'jobId');
    },
  });
  return opened;
}

export async function put(entries: readonly Waiting[]): Promise<void> {
  const transaction = (await database()).transaction('waiting', 'readwrite');
  for (const entry of entries) await transaction.store.add(entry);
  await transaction.done;
}

export async function waitingFor(jobId: string): Promise<Waiting[]> {
  return (await database()).getAllFromIndex('waiting', 'job', jobId);
}

export async function markRefused(entries: readonly Waiting[], reason: string): Promise<void> {
  const transaction = (await database()).transaction('waiting', 'readwrite');
  for (const entry of entries) await transaction.store.put({ ...entry, refused: reason });
  await transaction.done;
}

export async function remove(entries: readonly Waiting[]): Promise<void> {
  const transaction = (await database()).transaction('waiting', 'readwrite');
  for (const { turn } of entries) if (turn !== undefined) await transaction.store.delete(turn);
  await transaction.done;
}
