/** Is it up, is it ready, what is it made of. */
import type { Health } from '@veglia/contract';
import { QueryTypes } from 'sequelize';
import { ledgerProtection } from '../database/migrate.ts';
import type { Store } from '../store.ts';
import { isDatabaseUnavailable } from './errorHandler.ts';

/** A process that is on its way out takes no new work: whoever sends it some should send it elsewhere. */
export interface Draining {
  readonly draining: boolean;
}

/** Whether this process takes work. */
export type Readiness = 'ready' | 'draining' | 'database-unavailable';

/** Throws whatever is neither of these. */
export async function readiness(store: Store, { draining }: Draining): Promise<Readiness> {
  if (draining) return 'draining';
  try {
    await store.sequelize.query('SELECT 1', { type: QueryTypes.SELECT });
    return 'ready';
  } catch (error) {
    if (!isDatabaseUnavailable(error)) throw error;
    return 'database-unavailable';
  }
}

/** State of server and database. Throws whatever is not the database being away. */
export async function health(store: Store, version: string, demo: boolean): Promise<Health> {
  try {
    const [row] = await store.sequelize.query<{ name: string }>('SELECT name FROM migrations ORDER BY name DESC LIMIT 1', {
      type: QueryTypes.SELECT,
    });
    return {
      app: 'ok',
      version,
      database: 'ok',
      migration: row?.name ?? null,
      ledgerProtection: await ledgerProtection(store.sequelize),
      pack: await store.packs.currentHash().catch(() => null),
      demo,
    };
  } catch (error) {
    if (!isDatabaseUnavailable(error)) throw error;
    return { app: 'ok', version, database: 'away', migration: null, ledgerProtection: 'unknown', pack: null, demo };
  }
}
