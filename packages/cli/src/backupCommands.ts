/** `veglia backup` and `veglia restore`. Addresses and passphrases come from the environment, where other people of the machine can’t read them. */
import { CommanderError, Option, type Command } from 'commander';
import { backup, backupInto, restore, type BackupOptions } from './backup.ts';
import { positive } from './options.ts';

/** Value of ours: two weeks of nights. */
const usualKeep = 14;

/** The role that owns the tables, or the only one there is; a passphrase that is set encrypts. */
const optionsOf = (encrypt: boolean): BackupOptions => {
  const { VEGLIA_OWNER_DATABASE_URL: owner, DATABASE_URL: url = '', VEGLIA_BACKUP_PASSPHRASE: passphrase } = process.env;
  return {
    url: owner !== undefined && owner !== '' ? owner : url,
    now: () => new Date(),
    ...(encrypt && passphrase !== undefined && passphrase !== '' ? { passphrase } : {}),
  };
};

/** Adds them to the command. */
export function backupCommands(
  veglia: Command,
  { print, err }: { readonly print: (value: unknown) => void; readonly err: (text: string) => void },
): void {
  veglia
    .command('backup')
    .description('the whole database in one file for pg_restore; with VEGLIA_BACKUP_PASSPHRASE encrypted for gpg. Never over a file')
    .argument('[file]', 'file to write; what must be in it is written beside it as FILE.json')
    .option('--folder <folder>', 'write there under a name of its time, and let the oldest of that name go')
    .addOption(new Option('--keep <count>', 'how many stay in the folder').argParser(positive).default(usualKeep))
    .action(async (file: string | undefined, { folder, keep }: { folder?: string; keep: number }) => {
      if ((file === undefined) === (folder === undefined)) {
        err('error: name a file, or a folder with --folder\n');
        throw new CommanderError(2, 'veglia.call', '');
      }
      print(folder === undefined ? await backup(file ?? '', optionsOf(true)) : await backupInto(folder, keep, optionsOf(true)));
    });
  veglia
    .command('restore')
    .description('a backup into an empty database: checked first, then all of it or nothing')
    .argument('<file>', 'a backup, with its FILE.json beside it')
    .action(async (file: string) => print(await restore(file, optionsOf(true))));
}
