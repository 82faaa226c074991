/** What the process is told by its environment, checked once. */
import { fileURLToPath } from 'node:url';
import path from 'node:path';

export interface Config {
  readonly host: string;
  readonly port: number;
  /** The app's own role. */
  readonly databaseUrl: string;
  /** The role that owns the tables; the same as databaseUrl where there is only one. */
  readonly ownerUrl: string;
  /** The addresses people reach it by beside loopback; the first one stands in QR codes. */
  readonly publicUrls: readonly string[];
  readonly staticDir: string | undefined;
  readonly packDir: string;
  readonly demoDir: string | undefined;
}

const loopback = new Set(['127.0.0.1', '::1', 'localhost']);
const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../../..');

export class ConfigRefused extends Error {}

/** Throws ConfigRefused with a sentence that says what to change. */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const host = env.HOST ?? '127.0.0.1';
  if (!loopback.has(host)) {
    throw new ConfigRefused(
      `HOST is "${host}", but Veglia has no accounts yet and so listens on this machine only. Use 127.0.0.1, ::1 or localhost.`,
    );
  }
  const port = Number(env.PORT ?? '0');
  if (!Number.isInteger(port) || port < 0 || port > 65_535) {
    throw new ConfigRefused(`PORT is "${env.PORT}", which is not a whole number from 0 to 65535.`);
  }
  const databaseUrl = env.DATABASE_URL;
  if (!databaseUrl) throw new ConfigRefused('DATABASE_URL is missing. `npm run demo` starts a database of its own and sets it.');
  const publicUrls = (env.VEGLIA_PUBLIC_URL ?? '').split(/[\s,]+/).filter((one) => one !== '');
  for (const one of publicUrls) {
    if (!/^https?:[/][/][^/?#@]+[/]?$/.test(one) || !URL.canParse(one))
      throw new ConfigRefused(`VEGLIA_PUBLIC_URL has "${one}", which is no address such as https://bench.example.org.`);
  }
  return {
    host,
    port,
    publicUrls,
    databaseUrl,
    ownerUrl: env.VEGLIA_OWNER_DATABASE_URL ?? databaseUrl,
    staticDir: env.VEGLIA_STATIC_DIR,
    packDir: env.VEGLIA_PACK_DIR ?? path.join(root, 'knowledge'),
    demoDir: env.VEGLIA_DEMO_DIR,
  };
}
