/**
 * Lists, searches and photos from a copy of the database that PostgreSQL keeps up to date. What somebody wrote, or was told of, is in what they read
 * next: the copy is read only once it has everything that the database had when the read began.
 */
import { QueryTypes, type Sequelize } from 'sequelize';
import { isDatabaseUnavailable } from '../http/errorHandler.ts';
import type { Store } from '../store.ts';
import { connect } from './connect.ts';
import { defineModels } from './models.ts';

/** Where reads may go that write nothing. */
export interface Replica {
  /** From the copy, or from the database itself where the copy is behind or away. `run` may be called twice, so it must answer nothing by itself. */
  read<T>(store: Store, run: (from: Store) => Promise<T>): Promise<T>;
  /** How many reads went where. */
  readonly counts: Readonly<Record<ReadFrom, number>>;
  close(): Promise<void>;
}
/** `behind`, `away`: from the database, because the copy was. */
export type ReadFrom = 'replica' | 'behind' | 'away';

/** How long a read waits for the copy, and how long one that is away is left alone, milliseconds (values of ours). */
export const replicaPatience = { catchUp: 100, step: 10, away: 1000 } as const;

/** PostgreSQL ends a read on a copy that stands in the way of what the copy has to do (hot standby conflict). */
const isConflict = (error: unknown): boolean =>
  ['40001', '40P01'].includes((error as { original?: { code?: string } }).original?.code ?? '');

const position = async (sequelize: Sequelize, sql: string, bind: unknown[] = []): Promise<Record<string, unknown>> => {
  const [row] = await sequelize.query<Record<string, unknown>>(sql, { bind, type: QueryTypes.SELECT });
  return row ?? {};
};

/** `pause`: the timers' own, or a test's. Nothing is connected to before the first read. */
export function openReplica(
  url: string,
  pause: (ms: number) => Promise<void> = (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
): Replica {
  const sequelize = connect(url);
  const models = defineModels(sequelize);
  const counts = { replica: 0, behind: 0, away: 0 };
  let awayUntil = -Infinity;

  /** The copy has all that was written up to a position of the database's log. */
  async function hasAll(at: unknown): Promise<boolean> {
    for (let waited = 0; ; waited += replicaPatience.step) {
      const { there } = await position(sequelize, 'SELECT pg_is_in_recovery() AND pg_last_wal_replay_lsn() >= $1::pg_lsn AS there', [at]);
      if (there === true) return true;
      if (waited >= replicaPatience.catchUp) return false;
      await pause(replicaPatience.step);
    }
  }

  return {
    counts,
    async read(store, run) {
      let from: ReadFrom = 'away';
      if (store.now().getTime() >= awayUntil) {
        const { at } = await position(store.sequelize, 'SELECT pg_current_wal_lsn()::text AS at');
        try {
          if (await hasAll(at)) {
            const read = await run({ ...store, sequelize, models });
            counts.replica += 1;
            return read;
          }
          from = 'behind';
        } catch (error) {
          if (isConflict(error)) from = 'behind';
          else if (isDatabaseUnavailable(error)) awayUntil = store.now().getTime() + replicaPatience.away;
          else throw error;
        }
      }
      counts[from] += 1;
      return run(store);
    },
    close: () => sequelize.close(),
  };
}
