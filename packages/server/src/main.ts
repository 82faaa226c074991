/** The process: environment in, one listening server out. Says `listening` to a parent that forked it. */
import { fstatSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import closeWithGrace from 'close-with-grace';
import { InputRefused } from '@veglia/core';
import { createApp, version } from './app.ts';
import { ConfigRefused, readConfig, type Config } from './config.ts';
import { eraseOverdue } from './images/erase.ts';
import { dropAbandoned } from './images/uploads.ts';
import { collectChunks, graceMinutes } from './files/store.ts';
import { drain } from './http/drain.ts';
import { hostsOf } from './http/hosts.ts';
import { createLog, safeError } from './http/log.ts';
import { createMetrics, serveMetrics } from './http/metrics.ts';
import { openLive, type Live } from './live/live.ts';
import { openReplica } from './database/replica.ts';
import { DatabaseNotFit } from './database/migrate.ts';
import { closeMeter, openMeter } from './meter/meters.ts';
import { openProgrammers } from './programmer/programmers.ts';
import { ProgrammerRuns } from './programmer/runs.ts';
import { openMessenger } from './messages/messenger.ts';
import { dropOldAttempts } from './accounts/attempts.ts';
import { forgetOldAudit } from './accounts/audit.ts';
import { openDoor } from './accounts/door.ts';
import { firstOwnerCode } from './accounts/join.ts';
import { openStore } from './open.ts';
import { openSuppliers } from './parts/suppliers.ts';

/** Reached from other machines by TLS only. */
const isEncrypted = ({ publicUrls }: Config): boolean => publicUrls.length > 0 && publicUrls.every((url) => url.startsWith('https:'));

/** Its output is the journal's. The variable alone says nothing: whatever a desktop starts inherits it (systemd.exec(5)). */
function saysToJournal(): boolean {
  const { dev, ino } = fstatSync(1);
  return process.env.JOURNAL_STREAM === `${dev}:${ino}`;
}

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const log = createLog(config.logLevel);
  const store = await openStore(config, () => new Date());
  const hosts = hostsOf(config.publicUrls);
  const lifetime = { draining: false };
  let listeningOn = config.port;
  const ownAddress = (): string => (config.publicUrls[0] ?? `http://127.0.0.1:${listeningOn}`).replace(/[/]$/, '');
  const demo = config.demoDir !== undefined;
  const meter = await openMeter(config.meter, demo);
  const runs = new ProgrammerRuns(store, openProgrammers(config.programmers, demo), log);
  const messages = await openMessenger(config.messenger, demo);
  const suppliers = await openSuppliers(config.suppliers ?? [], demo);
  const door = await openDoor(store, config.databaseUrl, { demo, encrypted: isEncrypted(config) });
  const replica = config.readUrl === undefined ? undefined : openReplica(config.readUrl);
  const opened: { live?: Live } = {};
  const metrics = config.metricsPort ? createMetrics(store, version, () => opened.live, replica?.counts) : undefined;
  const server = createServer(
    createApp({
      store,
      replica,
      log,
      door,
      hosts,
      ownAddress,
      staticDir: config.staticDir,
      lifetime,
      demo,
      meter,
      runs,
      suppliers: suppliers.all,
      messenger: messages.messenger,
      metrics,
    }),
  );
  const live = openLive(server, config.databaseUrl, log, hosts, door);
  opened.live = live;
  if (metrics && config.metricsPort) await serveMetrics(metrics, config.metricsPort);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.port, config.host, resolve);
  });
  const { port } = server.address() as AddressInfo;
  listeningOn = port;
  log.info({ port }, 'listening');
  // To whoever started it, and not into a log, which others may read and which is kept: under a supervisor `veglia-admin first-owner` shows one.
  const code = demo || saysToJournal() ? undefined : await firstOwnerCode(store);
  if (code !== undefined) process.stdout.write(`No one can sign in yet. Open ${ownAddress()} and enter this code within a day: ${code}\n`);
  process.send?.({ listening: port });

  // Chunks of uploads that never came to their end; an hour apart, as long as the grace they have.
  const collecting = setInterval(() => {
    dropAbandoned(store)
      .then(() => eraseOverdue(store))
      .then(() => collectChunks(store))
      .then(() => dropOldAttempts(store))
      .then(() => forgetOldAudit(store))
      .catch((error: unknown) => log.warn({ err: error }, 'what is no longer needed was not cleared away'));
  }, graceMinutes * 60_000);
  collecting.unref();

  const graceMs = config.graceSeconds * 1000;
  const closing = closeWithGrace({ delay: graceMs + 5000, logger: false }, async ({ err, signal }) => {
    if (err) log.fatal({ err }, 'stopped by an error of its own');
    else log.info({ signal }, 'stopping');
    clearInterval(collecting);
    lifetime.draining = true;
    await live.close();
    await drain(server, graceMs);
    await Promise.all([closeMeter(meter), runs.close(), suppliers.close(), messages.close(), door.close(), replica?.close()]);
    await store.sequelize.close();
  });
  // The parent is gone, however it went: a server nobody can stop must not stay.
  process.on('disconnect', () => void closing.close());
}

main().catch((error: unknown) => {
  if (error instanceof ConfigRefused) console.error(error.message);
  else if (error instanceof DatabaseNotFit) console.error(error.message);
  else if ((error as { code?: unknown }).code === 'EADDRINUSE')
    console.error(`Port ${process.env.PORT ?? ''} is taken. Choose another with PORT.`);
  else if (error instanceof InputRefused) console.error('The knowledge pack is refused:', error.problems);
  else console.error('Could not start:', safeError(error));
  // 2 and 3 stay what they are however often it is started.
  process.exit(error instanceof ConfigRefused ? 2 : error instanceof DatabaseNotFit ? 3 : 1);
});
