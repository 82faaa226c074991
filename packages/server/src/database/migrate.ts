/** Forward-only migrations, run as the owner, and the rights of the app's role. */
import { QueryTypes, type QueryInterface, type Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import * as foundation from './migrations/0001-foundation.ts';
import * as counts from './migrations/0002-counts.ts';
import * as shop from './migrations/0003-shop.ts';
import * as chunks from './migrations/0004-chunks.ts';
import * as blinkTables from './migrations/0005-blink-tables.ts';
import * as namesOutOfCards from './migrations/0006-names-out-of-cards.ts';
import * as probabilityInCards from './migrations/0007-probability-in-cards.ts';
import * as boards from './migrations/0009-boards.ts';
import * as families from './migrations/0010-families.ts';
import * as images from './migrations/0011-images.ts';
import * as flashHistory from './migrations/0012-flash-history.ts';
import * as imageErasures from './migrations/0013-image-erasures.ts';
import * as imageFactsBefore from './migrations/0014-image-facts-before.ts';
import * as stock from './migrations/0015-stock.ts';
import * as accounts from './migrations/0016-accounts.ts';
import * as passkeys from './migrations/0019-passkeys.ts';
import * as programmerRuns from './migrations/0018-programmer-runs.ts';
import * as forgetting from './migrations/0017-forgetting.ts';
import * as listOfJobs from './migrations/0008-list-of-jobs.ts';

const migrations: readonly { name: string; up: (options: { context: QueryInterface }) => Promise<void> }[] = [
  { name: '0001-foundation', up: foundation.up },
  { name: '0002-counts', up: counts.up },
  { name: '0003-shop', up: shop.up },
  { name: '0004-chunks', up: chunks.up },
  { name: '0005-blink-tables', up: blinkTables.up },
  { name: '0006-names-out-of-cards', up: namesOutOfCards.up },
  { name: '0007-probability-in-cards', up: probabilityInCards.up },
  { name: '0008-list-of-jobs', up: listOfJobs.up },
  { name: '0009-boards', up: boards.up },
  { name: '0010-families', up: families.up },
  { name: '0011-images', up: images.up },
  { name: '0012-flash-history', up: flashHistory.up },
  { name: '0013-image-erasures', up: imageErasures.up },
  { name: '0014-image-facts-before', up: imageFactsBefore.up },
  { name: '0015-stock', up: stock.up },
  { name: '0016-accounts', up: accounts.up },
  { name: '0017-forgetting', up: forgetting.up },
  { name: '0018-programmer-runs', up: programmerRuns.up },
  { name: '0019-passkeys', up: passkeys.up },
];

/** Name of the last migration this program knows. */
export const newestMigration = migrations.at(-1)?.name ?? null;

/** How a database stands to this program. */
export interface MigrationState {
  /** Last one that was carried out; null in an empty database. */
  readonly newest: string | null;
  /** What this program knows and the database lacks. */
  readonly pending: readonly string[];
  /** What the database has and this program doesn't know: a newer program made it. */
  readonly unknown: readonly string[];
}
/** Read only; also with a role that may nothing else. */
export async function migrationState(sequelize: Sequelize): Promise<MigrationState> {
  const [there] = await sequelize.query<{ there: boolean }>(`SELECT to_regclass('public.migrations') IS NOT NULL AS there`, {
    type: QueryTypes.SELECT,
  });
  const rows =
    there?.there === true
      ? await sequelize.query<{ name: string }>('SELECT name FROM migrations ORDER BY name', { type: QueryTypes.SELECT })
      : [];
  const done = new Set(rows.map(({ name }) => name));
  const known = new Set(migrations.map(({ name }) => name));
  return {
    newest: rows.at(-1)?.name ?? null,
    pending: [...known].filter((name) => !done.has(name)),
    unknown: [...done].filter((name) => !known.has(name)),
  };
}

/** The database is of another version than this program. */
export class DatabaseNotFit extends Error {}
/** Throws DatabaseNotFit with what to do. */
export function requireFit({ pending, unknown, newest }: MigrationState): void {
  if (unknown.length > 0)
    throw new DatabaseNotFit(
      `The database was made by a newer Veglia (${newest ?? ''}), which this one could damage. Install that version again, or restore the backup that was made before the upgrade (docs/deployment.md).`,
    );
  if (pending.length > 0)
    throw new DatabaseNotFit(
      `The database lacks ${pending.join(', ')}. Run the migrations first (docs/deployment.md): VEGLIA_MIGRATE is "apart".`,
    );
}

/** Number of the session lock that keeps two starting processes from migrating at once (any constant of ours). */
const migrationLock = 8_346_001;

/**
 * Brings the database to the newest migration, one process at a time, and grants the app's role what it may do. Throws what PostgreSQL
 * throws.
 */
export async function migrate(owner: Sequelize, appRole: string | undefined): Promise<void> {
  // One connection holds the lock for as long as it takes.
  await owner.transaction(async (transaction) => {
    await owner.query('SELECT pg_advisory_xact_lock($1)', { bind: [migrationLock], transaction });
    const umzug = new Umzug({
      migrations: migrations.map(({ name, up }) => ({ name, up })),
      context: owner.getQueryInterface(),
      storage: new SequelizeStorage({ sequelize: owner, tableName: 'migrations' }),
      logger: undefined,
    });
    await umzug.up();
    if (appRole !== undefined) await grant(owner, appRole);
  });
}

/** The app may add to the ledger and read it; what it may change is named table by table. */
async function grant(owner: Sequelize, appRole: string): Promise<void> {
  const role = `"${appRole.replaceAll('"', '""')}"`;
  const changeable = ['people', 'customers', 'sets', 'jobs', 'job_cards', 'entry_texts', 'told_experience', 'shop_settings', 'meta'].join(
    ', ',
  );
  await owner.query(`GRANT USAGE ON SCHEMA public TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT ON ledger_entries, packs, counts_snapshots TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT, UPDATE ON ${changeable} TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT, DELETE ON files, file_pages TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT ON blink_tables, family_versions, board_versions TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT, UPDATE, DELETE ON chunks, uploads, upload_pages TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT, UPDATE, DELETE ON images, programmer_runs TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT ON image_erasures, image_facts_before TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT, UPDATE ON stock_items TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT ON stock_items_before, stock_moves TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT, UPDATE ON accounts, benches, bench_people TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT, UPDATE, DELETE ON invitations, sessions, attempts, passkeys TO ${role}`);
  await owner.query(`GRANT SELECT, INSERT, UPDATE (about, from_address) ON audit TO ${role}`);
  await owner.query(`GRANT DELETE ON job_cards TO ${role}`);
  await owner.query(`GRANT SELECT ON migrations TO ${role}`);
}

/** What keeps the ledger append-only. */
export type LedgerProtection = 'role-and-trigger' | 'trigger-only' | 'none';

/** What holds for the role this pool connects as. */
export async function ledgerProtection(app: Sequelize): Promise<LedgerProtection> {
  const [row] = await app.query<{ may_change: boolean; triggers: number }>(
    `SELECT has_table_privilege('ledger_entries', 'UPDATE') OR has_table_privilege('ledger_entries', 'DELETE')
         OR has_table_privilege('ledger_entries', 'TRUNCATE') AS may_change,
       (SELECT count(*)::int FROM pg_trigger WHERE tgrelid = 'ledger_entries'::regclass AND NOT tgisinternal
          AND tgname LIKE 'ledger_%' AND tgenabled IN ('O', 'A')) AS triggers`,
    { type: QueryTypes.SELECT },
  );
  if (!row || row.triggers < 2) return 'none';
  return row.may_change ? 'trigger-only' : 'role-and-trigger';
}
