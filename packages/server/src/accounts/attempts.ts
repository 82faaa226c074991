/**
 * How often somebody may guess. An account is never locked as such: whoever hammers at it holds up strangers only. A browser in which a person
 * signed in before has a mark of its own and is counted by itself, so that person still gets in (OWASP’s device cookies, from memory).
 */
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';

const minutes = (n: number): number => n * 60;
/** Values of ours. All counted in PostgreSQL, since several servers may be asked. */
const limits = {
  /** A browser known to a person, for that person. */
  known: { points: 10, duration: minutes(15) },
  /** All strangers together, for one name. */
  strangers: { points: 20, duration: minutes(15) },
  /** One address, for all names and codes. */
  address: { points: 60, duration: minutes(15) },
} as const;
type Kind = keyof typeof limits;

/** Counts wrong attempts. */
export interface Attempts {
  /** Throws too-many-attempts where one of these has none left. */
  require(keys: readonly (readonly [Kind, string])[]): Promise<void>;
  wrong(keys: readonly (readonly [Kind, string])[]): Promise<void>;
  right(kind: Kind, key: string): Promise<void>;
}

/** The table is made by a migration. */
export function openAttempts(store: Store): Attempts {
  const limiterOf = (kind: Kind): RateLimiterPostgres =>
    new RateLimiterPostgres({
      storeClient: store.sequelize,
      storeType: 'sequelize',
      tableName: 'attempts',
      tableCreated: true,
      clearExpiredByTimeout: false,
      keyPrefix: kind,
      ...limits[kind],
    });
  const limiters = { known: limiterOf('known'), strangers: limiterOf('strangers'), address: limiterOf('address') };
  return {
    async require(keys) {
      for (const [kind, key] of keys) {
        const state = await limiters[kind].get(key);
        if (state && state.remainingPoints <= 0) throw new ApiError('too-many-attempts', [], Math.ceil(state.msBeforeNext / 1000));
      }
    },
    async wrong(keys) {
      for (const [kind, key] of keys) {
        // Beyond the limit it is refused as a value of its own; counted it is all the same.
        await limiters[kind].consume(key).catch((error: unknown) => {
          if (!(error instanceof RateLimiterRes)) throw error;
        });
      }
    },
    async right(kind, key) {
      await limiters[kind].delete(key);
    },
  };
}
