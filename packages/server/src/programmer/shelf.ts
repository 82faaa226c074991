/**
 * Runs of programmers as every process knows them. The one that has the programmer says each second that it is still there; one that was killed is silent, and
 * its run counts as broken off.
 */
import { programmerRunSchema, type ProgrammerRun } from '@veglia/contract';
import { QueryTypes } from 'sequelize';
import { ApiError } from '../http/apiError.ts';
import type { Store } from '../store.ts';

/** Number of the lock that keeps two processes from taking one programmer (any constant of ours). */
const takeLock = 8_346_005;
/** Milliseconds between two signs of life; after how many seconds of silence a process is taken for gone (values of ours). */
export const sayEveryMs = 1000;
const silentSeconds = 15;
const keptDays = 30;

interface Row {
  readonly document: object;
  readonly ended: boolean;
  readonly silent: boolean;
  readonly seen_at: Date;
}
const columns = `document, ended, seen_at, seen_at < now() - interval '${silentSeconds} s' AS silent`;

/** As it stands in the database; one whose process is gone has broken off. */
function runOf({ document, ended, silent, seen_at: seenAt }: Row): ProgrammerRun {
  const run = programmerRunSchema.parse(document);
  return ended || !silent ? run : { ...run, endedAt: seenAt.toISOString(), result: { kind: 'broken-off', detail: '' } };
}

/** Puts a run there as the only one of its programmer and its session. Throws programmer-busy. */
export async function takeRun(store: Store, run: ProgrammerRun): Promise<void> {
  await store.sequelize.transaction(async (transaction) => {
    await store.sequelize.query('SELECT pg_advisory_xact_lock($1)', { bind: [takeLock], transaction });
    await store.sequelize.query(`DELETE FROM programmer_runs WHERE seen_at < now() - interval '${keptDays} days'`, { transaction });
    const busy = await store.sequelize.query(
      `SELECT 1 FROM programmer_runs WHERE NOT ended AND seen_at > now() - interval '${silentSeconds} s' AND (programmer = $1 OR session = $2) LIMIT 1`,
      { bind: [run.programmer, run.session], type: QueryTypes.SELECT, transaction },
    );
    if (busy.length > 0) throw new ApiError('programmer-busy');
    await store.sequelize.query(
      'INSERT INTO programmer_runs (id, programmer, session, document, ended, seen_at) VALUES ($1, $2, $3, $4, false, now())',
      { bind: [run.id, run.programmer, run.session, JSON.stringify(run)], transaction },
    );
  });
}

/** How far it is, and that its process is there. Whether somebody wants it to stop. */
export async function sayRun(store: Store, run: ProgrammerRun): Promise<boolean> {
  const [row] = await store.sequelize.query<{ cancelled: boolean }>(
    'UPDATE programmer_runs SET document = $2, ended = $3, seen_at = now() WHERE id = $1 RETURNING cancelled',
    { bind: [run.id, JSON.stringify(run), run.result !== null], type: QueryTypes.SELECT },
  );
  return row?.cancelled === true;
}

/** Undefined where there is none. */
export async function findRun(store: Store, id: string): Promise<ProgrammerRun | undefined> {
  const [row] = await store.sequelize.query<Row>(`SELECT ${columns} FROM programmer_runs WHERE id = $1`, {
    bind: [id],
    type: QueryTypes.SELECT,
  });
  return row && runOf(row);
}

/** The process that has it stops within a second. */
export async function cancelRun(store: Store, id: string): Promise<void> {
  await store.sequelize.query('UPDATE programmer_runs SET cancelled = true WHERE id = $1 AND NOT ended', { bind: [id] });
}

/** Programmer -> the run it is at. */
export async function runsUnderWay(store: Store): Promise<Map<string, string>> {
  const rows = await store.sequelize.query<{ programmer: string; id: string }>(
    `SELECT programmer, id FROM programmer_runs WHERE NOT ended AND seen_at > now() - interval '${silentSeconds} s'`,
    { type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ programmer, id }) => [programmer, id]));
}
