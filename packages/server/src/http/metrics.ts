/**
 * What a supervisor reads: Prometheus' text format, on a port of its own that listens on this machine only. Names of routes and status codes, sizes and
 * durations; nothing of anybody's data.
 */
import { createServer, type Server } from 'node:http';
import type { RequestHandler } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { QueryTypes } from 'sequelize';
import type { Replica } from '../database/replica.ts';
import type { Live } from '../live/live.ts';
import type { Store } from '../store.ts';

/** Seconds. */
const buckets = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 5, 10];

/** Counts requests, and answers a supervisor. */
export interface Metrics {
  /** Before everything else, so that refusals count too. */
  readonly middleware: RequestHandler;
  /** The text as of now. */
  read(): Promise<string>;
}

interface Pool {
  readonly using: number;
  readonly available: number;
  readonly waiting: number;
}
const poolOf = ({ sequelize }: Pick<Store, 'sequelize'>): Pool => (sequelize.connectionManager as unknown as { pool: Pool }).pool;

/** `live` is asked each time: the sockets open after the app is built. `reads`: where a copy of the database is read, too. */
export function createMetrics(
  store: Pick<Store, 'sequelize'>,
  version: string,
  live: () => Pick<Live, 'sockets' | 'listening'> | undefined,
  reads?: Replica['counts'],
): Metrics {
  const register = new Registry();
  collectDefaultMetrics({ register });
  const seconds = new Histogram({
    name: 'veglia_http_request_seconds',
    help: 'Duration of requests by operation and status.',
    labelNames: ['operation', 'status'],
    buckets,
    registers: [register],
  });
  new Gauge({ name: 'veglia_build_info', help: 'Version.', labelNames: ['version'], registers: [register] }).set({ version }, 1);
  const gauge = (name: string, help: string, read: () => number | Promise<number>): void => {
    new Gauge({
      name,
      help,
      registers: [register],
      async collect() {
        this.set(await read());
      },
    });
  };
  gauge('veglia_sockets', 'Browsers that are told of new entries.', () => live()?.sockets() ?? 0);
  gauge('veglia_live_listening', '1 while the database says what other processes wrote.', () => (live()?.listening() === true ? 1 : 0));
  gauge('veglia_database_up', '1 while the database answers.', () =>
    store.sequelize.query('SELECT 1', { type: QueryTypes.SELECT }).then(
      () => 1,
      () => 0,
    ),
  );
  gauge('veglia_database_connections_used', 'Connections of the pool that work.', () => poolOf(store).using);
  gauge('veglia_database_connections_free', 'Connections of the pool that wait for work.', () => poolOf(store).available);
  gauge('veglia_database_requests_waiting', 'Requests that wait for a connection.', () => poolOf(store).waiting);
  if (reads)
    new Gauge({
      name: 'veglia_reads',
      help: 'Reads since the start by where they went: the replica, or the database because the replica was behind or away.',
      labelNames: ['from'],
      registers: [register],
      collect() {
        for (const [from, n] of Object.entries(reads)) this.set({ from }, n);
      },
    });
  return {
    middleware: (_request, response, next) => {
      const ended = seconds.startTimer();
      response.once('close', () => {
        const { operation } = response.locals as { operation?: string };
        ended({ operation: operation ?? 'other', status: response.writableFinished ? String(response.statusCode) : 'broken-off' });
      });
      next();
    },
    read: () => register.metrics(),
  };
}

/** Answers `GET /metrics` on loopback; resolves once it listens. */
export async function serveMetrics(metrics: Pick<Metrics, 'read'>, port: number): Promise<Server> {
  const server = createServer((request, response) => {
    if (request.method !== 'GET' || request.url !== '/metrics') {
      response.writeHead(404).end();
      return;
    }
    metrics.read().then(
      (text) => response.writeHead(200, { 'content-type': Registry.PROMETHEUS_CONTENT_TYPE, 'cache-control': 'no-store' }).end(text),
      () => response.writeHead(500).end(),
    );
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  server.unref();
  return server;
}
