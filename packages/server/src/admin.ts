/**
 * What is done beside the running server, by whoever runs the machine: `migrate` brings the tables up, and ends with 10 instead where tables that hold data
 * would change and nobody said that there is a backup (`--backed-up`); `first-owner` shows a code that lets the first owner in. Says JSON, or one sentence
 * on what is wrong.
 */
import { parseArgs } from 'node:util';
import { firstOwnerCode } from './accounts/join.ts';
import { ConfigRefused, readConfig } from './config.ts';
import { connect } from './database/connect.ts';
import { DatabaseNotFit, migrate, migrationState, requireFit } from './database/migrate.ts';
import { defineModels } from './database/models.ts';
import { PackShelf } from './packs/shelf.ts';
import { safeError } from './http/log.ts';

const usage = 'Usage: admin.ts migrate [--backed-up] | first-owner';
const backupFirst = 10;

async function run(args: readonly string[]): Promise<object> {
  const { positionals, values } = parseArgs({ args: [...args], options: { 'backed-up': { type: 'boolean' } }, allowPositionals: true });
  const config = readConfig(process.env);
  const [command] = positionals;
  if (command === 'migrate') {
    const owner = connect(config.ownerUrl, 3);
    try {
      const before = await migrationState(owner);
      requireFit({ ...before, pending: [] });
      if (before.newest !== null && before.pending.length > 0 && values['backed-up'] !== true) {
        process.exitCode = backupFirst;
        return { pending: before.pending, why: 'Make a backup first.' };
      }
      await migrate(owner, decodeURIComponent(new URL(config.databaseUrl).username));
      return { migrated: before.pending, newest: (await migrationState(owner)).newest };
    } finally {
      await owner.close();
    }
  }
  if (command === 'first-owner') {
    const sequelize = connect(config.databaseUrl, 2);
    try {
      requireFit(await migrationState(sequelize));
      const models = defineModels(sequelize);
      const code = await firstOwnerCode({ sequelize, models, packs: new PackShelf(models), counts: new Map(), now: () => new Date() });
      return code === undefined
        ? { code: null, why: 'Someone can sign in already: an owner adds people in the app.' }
        : { code, hours: 24 };
    } finally {
      await sequelize.close();
    }
  }
  throw new ConfigRefused(usage);
}

run(process.argv.slice(2)).then(
  (said) => process.stdout.write(`${JSON.stringify(said)}\n`),
  (error: unknown) => {
    if (error instanceof ConfigRefused || error instanceof DatabaseNotFit) console.error(error.message);
    else console.error('Could not do it:', safeError(error));
    process.exitCode = error instanceof ConfigRefused ? 2 : error instanceof DatabaseNotFit ? 3 : 1;
  },
);
