/** What the database says of a person at this moment, asked for with every request: in the same statement as the session, or by itself. */
import type { Role } from '@veglia/contract';

/** As of this moment. */
export interface PersonNow {
  readonly name: string;
  readonly role: Role;
  readonly left: boolean;
  readonly sessions_from: Date | null;
  readonly has_pin: boolean;
  readonly has_factor: boolean;
  readonly bench_ended: boolean;
}

/** Columns of `PersonNow` from `people p LEFT JOIN accounts a`; `bench`: an SQL expression, the bench of the session or null. */
export const personNowColumns = (bench: string): string =>
  `p.name, p.role, p.left_at IS NOT NULL AS left, a.sessions_from, a.pin_hash IS NOT NULL AS has_pin, a.factor_secret IS NOT NULL OR EXISTS (SELECT 1 FROM passkeys k WHERE k.person_id = p.id) AS has_factor,
   ${bench} IS NOT NULL AND NOT EXISTS (SELECT 1 FROM benches b WHERE b.id = ${bench} AND b.ended_at IS NULL) AS bench_ended`;
