/** What this shop has seen of images and settings on one board. */
import type { FlashHistory } from '@veglia/contract';
import { flashSessions, liveEntries, trialsOf, wonSettings } from '@veglia/core';
import { QueryTypes } from 'sequelize';
import { readLedger } from '../jobs/ledger.ts';
import type { Store } from '../store.ts';

/** The newest sets of a board are looked at: a shop sees fewer in a year. */
const mostJobs = 60;

/** By the board as printed; an unknown panel has no settings that won. */
export async function flashHistory(store: Store, board: string, panel: string | undefined): Promise<FlashHistory> {
  const rows = await store.sequelize.query<{ job_id: string }>(
    `SELECT job_id FROM ledger_entries
      WHERE kind = 'flash.step' AND body #>> '{did,step}' = 'target'
        AND regexp_replace(lower(body #>> '{did,board}'), '[^a-z0-9]', '', 'g') = regexp_replace(lower($1), '[^a-z0-9]', '', 'g')
      GROUP BY job_id ORDER BY max(recorded_at) DESC LIMIT ${mostJobs}`,
    { bind: [board], type: QueryTypes.SELECT },
  );
  const ledgers = await Promise.all(rows.map(({ job_id: id }) => readLedger(store, id)));
  const sessions = ledgers.flatMap((entries) => flashSessions(liveEntries(entries)));
  return { trials: sessions.flatMap(trialsOf), settings: wonSettings(sessions, { board, panel }) };
}
