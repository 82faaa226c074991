/** What the engine is handed in a browser: its lock, its timer, and "the network is back". */
import type { Sync, SyncParts } from './sync.ts';

/** Tabs of one browser share one store: one of them sends at a time. */
export const exclusively =
  (name: string): SyncParts<unknown, unknown>['exclusively'] =>
  async (run) => {
    await navigator.locks.request(name, run);
  };

export function later(ms: number, run: () => void): () => void {
  const timer = setTimeout(run, ms);
  return () => clearTimeout(timer);
}

/** Nobody waits out a pause once the network is back. */
export function whenBack(sync: Pick<Sync<unknown, unknown>, 'flush'>): void {
  addEventListener('online', () => void sync.flush());
}
