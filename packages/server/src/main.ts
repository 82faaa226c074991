/** The process: environment in, one listening server out. Says `listening` to a parent that forked it. */
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { InputRefused } from '@veglia/core';
import { createApp } from './app.ts';
import { ConfigRefused, readConfig } from './config.ts';
import { collectChunks, graceMinutes } from './files/store.ts';
import { hostsOf } from './http/hosts.ts';
import { openLive } from './live/live.ts';
import { openStore } from './open.ts';

const log = pino({ level: process.env.LOG_LEVEL ?? 'info' });

async function main(): Promise<void> {
  const config = readConfig(process.env);
  const store = await openStore(config, () => new Date());
  const hosts = hostsOf(config.publicUrls);
  let listeningOn = config.port;
  const ownAddress = (): string => (config.publicUrls[0] ?? `http://127.0.0.1:${listeningOn}`).replace(/[/]$/, '');
  const server = createServer(createApp({ store, log, hosts, ownAddress, staticDir: config.staticDir }));
  const live = openLive(server, config.databaseUrl, log, hosts);
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(config.port, config.host, resolve);
  });
  const { port } = server.address() as AddressInfo;
  listeningOn = port;
  log.info({ port }, 'listening');
  process.send?.({ listening: port });

  // Chunks of uploads that never came to their end; an hour apart, as long as the grace they have.
  const collecting = setInterval(() => {
    collectChunks(store).catch((error: unknown) => log.warn({ err: error as Error }, 'chunks were not collected'));
  }, graceMinutes * 60_000);
  collecting.unref();

  let stopping = false;
  const stop = (): void => {
    if (stopping) return;
    stopping = true;
    void live.close();
    server.close(() => {
      void store.sequelize.close().finally(() => process.exit(0));
    });
    server.closeAllConnections();
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  // The parent is gone, however it went: a server nobody can stop must not stay.
  process.on('disconnect', stop);
}

main().catch((error: unknown) => {
  if (error instanceof ConfigRefused) console.error(error.message);
  else if ((error as { code?: unknown }).code === 'EADDRINUSE')
    console.error(`Port ${process.env.PORT ?? ''} is taken. Choose another with PORT.`);
  else if (error instanceof InputRefused) console.error('The knowledge pack is refused:', error.problems);
  else log.fatal({ err: error as Error }, 'could not start');
  process.exit(error instanceof ConfigRefused ? 2 : 1);
});
