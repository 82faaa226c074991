/** One cluster a run, with a migrated template database that every test database is copied from. */
import { temporaryCluster } from '../../../../scripts/lib/cluster.mjs';
import { ensureFlashrom, ensurePostgres } from '../../../../scripts/lib/install.mjs';
import { inRoot } from '../../../../scripts/lib/paths.mjs';
import { run } from '../../../../scripts/lib/run.mjs';

export default async function globalSetup() {
  const cluster = await temporaryCluster(await ensurePostgres());
  globalThis.__veglia_cluster = cluster;
  await ensureFlashrom();
  cluster.createDatabase('veglia_template');
  const env = {
    ...process.env,
    DATABASE_URL: cluster.url('app', 'veglia_template'),
    VEGLIA_OWNER_DATABASE_URL: cluster.url('owner', 'veglia_template'),
  };
  const code = await run(process.execPath, ['--import', 'tsx', inRoot('packages/server/test/support/migrateTemplate.ts')], { env });
  if (code !== 0) throw new Error('the template database could not be migrated');
  process.env.VEGLIA_TEST_CLUSTER = JSON.stringify({ bin: cluster.bin, folder: cluster.folder, port: cluster.port });
}
