/** From a configuration to a store that is ready: migrated, packed, and filled with demo data where asked for. */
import type { Config } from './config.ts';
import { connect } from './database/connect.ts';
import { migrate, migrationState, requireFit } from './database/migrate.ts';
import { defineModels } from './database/models.ts';
import { loadDemo } from './demo/load.ts';
import { readPackFolder } from '@veglia/contract/node';
import { withOwnTables } from './packs/blinkTables.ts';
import { withOwnFamilies } from './packs/families.ts';
import { PackShelf } from './packs/shelf.ts';
import type { Store } from './store.ts';

/** Migrated, with the shipped pack in it, and demo data where it is asked for. Throws InputRefused on a pack that is refused, DatabaseNotFit. */
export async function openStore(config: Config, now: () => Date): Promise<Store> {
  const appRole = decodeURIComponent(new URL(config.databaseUrl).username);
  const ownerRole = decodeURIComponent(new URL(config.ownerUrl).username);
  const sequelize = connect(config.databaseUrl);
  try {
    const state = await migrationState(sequelize);
    requireFit(config.migrateApart === true ? state : { ...state, pending: [] });
  } catch (error) {
    await sequelize.close();
    throw error;
  }
  if (config.migrateApart !== true) {
    const owner = connect(config.ownerUrl, 3);
    try {
      await migrate(owner, appRole === ownerRole ? undefined : appRole);
    } finally {
      await owner.close();
    }
  }
  const models = defineModels(sequelize);
  const store: Store = { sequelize, models, packs: new PackShelf(models), counts: new Map(), now };
  const kept = await withOwnFamilies(store, await readPackFolder(config.packDir));
  for (const family of kept.leftOut) process.emitWarning(`the shop's family ${family} doesn't fit the new pack and stays out`);
  // A table may be of a family that the shop added.
  const { pack, leftOut } = await withOwnTables(store, kept.pack);
  for (const family of leftOut) process.emitWarning(`the shop's blink table of ${family} doesn't fit the new pack and stays out`);
  await store.packs.import(pack);
  if (config.demoDir !== undefined) await loadDemo(store, config.demoDir);
  return store;
}
