/**
 * How often somebody may guess. An account is never locked as such: whoever hammers at it holds up strangers only. A browser in which a person
 * signed in before has a mark of its own and is counted by itself, so that person still gets in (OWASP’s device cookies, from memory).
 */
import { Op } from 'sequelize';
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

type Keys = readonly (readonly [Kind, string])[];
/** Counts attempts. */
export interface Attempts {
  /** Counted before it is looked at: many at once are many. Throws too-many-attempts. */
  take(keys: Keys): Promise<void>;
  /** It was no wrong one. */
  giveBack(keys: Keys): Promise<void>;
  /** Nothing counts any more for this key. */
  forget(kind: Kind, key: string): Promise<void>;
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
    async take(keys) {
      for (const [kind, key] of keys) {
        await limiters[kind].consume(key).catch((refused: unknown) => {
          if (!(refused instanceof RateLimiterRes)) throw refused;
          throw new ApiError('too-many-attempts', [], Math.ceil(refused.msBeforeNext / 1000));
        });
      }
    },
    async giveBack(keys) {
      for (const [kind, key] of keys) await limiters[kind].reward(key);
    },
    async forget(kind, key) {
      await limiters[kind].delete(key);
    },
  };
}

/** What counts no longer, and codes that hold no longer: names in it are a stranger’s choice and may be many. */
export async function dropOldAttempts(store: Store): Promise<void> {
  const now = store.now();
  await store.sequelize.query('DELETE FROM attempts WHERE expire < $1', { bind: [now.getTime()] });
  await store.models.invitations.destroy({ where: { until: { [Op.lt]: now } } });
}
