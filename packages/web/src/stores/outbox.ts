/**
 * Entries on their way. What a technician wrote is in IndexedDB before anything is sent, leaves it only when the server
 * has said that it is stored, and is sent in order.
 */
import { local, type Waiting } from './local.ts';

export type { Waiting };

export async function put(entries: readonly Waiting[]): Promise<void> {
  const transaction = (await local()).transaction('waiting', 'readwrite');
  for (const entry of entries) await transaction.store.add(entry);
  await transaction.done;
}

export async function waitingFor(jobId: string): Promise<Waiting[]> {
  return (await local()).getAllFromIndex('waiting', 'job', jobId);
}

export async function markRefused(entries: readonly Waiting[], reason: string): Promise<void> {
  const transaction = (await local()).transaction('waiting', 'readwrite');
  for (const entry of entries) await transaction.store.put({ ...entry, refused: reason });
  await transaction.done;
}

export async function remove(entries: readonly Waiting[]): Promise<void> {
  const transaction = (await local()).transaction('waiting', 'readwrite');
  for (const { turn } of entries) if (turn !== undefined) await transaction.store.delete(turn);
  await transaction.done;
}
