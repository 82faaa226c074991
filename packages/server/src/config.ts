/** What the process is told by its environment, checked once. `.env.example` and docs/configuration.md name the same; a test holds them together. */
import { fileURLToPath } from 'node:url';
import path from 'node:path';
import { z } from 'zod';
import type { SupplierSetting } from './parts/offers.ts';
import type { ProgrammerSetting } from './programmer/programmers.ts';

const loopback = ['127.0.0.1', '::1', 'localhost'];
const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../../..');
/** As pino has them. */
export const logLevels = ['fatal', 'error', 'warn', 'info', 'debug', 'trace', 'silent'] as const;

const databaseAddress = (url: string): boolean => /^postgres(?:ql)?:[/][/]/.test(url) && URL.canParse(url);
const address = (text: string): boolean => /^https?:[/][/][^/?#@]+[/]?$/.test(text) && URL.canParse(text);
const wholeNumber = (least: number, most: number, usual: string) =>
  z
    .string()
    .default(usual)
    .refine((text) => /^\d{1,6}$/.test(text) && Number(text) >= least && Number(text) <= most, {
      error: `is not a whole number from ${least} to ${most}.`,
    })
    .transform(Number);

const meterAddress = (text: string): boolean => {
  const port = /^(?:[\w.-]+|\[[0-9a-fA-F:]+\]):(\d{1,5})$/.exec(text)?.[1];
  return port !== undefined && Number(port) >= 1 && Number(port) <= 65_535;
};

/**
 * Name=value of flashrom’s -p, several parted by semicolons. Such a value may name a file to be written: it comes from whoever runs the server, never from a
 * page.
 */
function programmersOf(text: string): ProgrammerSetting[] {
  return text
    .split(';')
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .map((one) => {
      const at = one.indexOf('=');
      return { name: one.slice(0, Math.max(0, at)).trim(), spec: one.slice(at + 1).trim() };
    });
}
/** Name=address, several parted by semicolons. The server asks these addresses: they come from whoever runs it, never from a page. */
function suppliersOf(text: string): SupplierSetting[] {
  return text
    .split(';')
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .map((one) => {
      const at = one.indexOf('=');
      return { name: one.slice(0, Math.max(0, at)).trim(), address: one.slice(at + 1).trim() };
    });
}
const serviceAddress = (text: string): boolean => /^https?:[/][/][^@#]+$/.test(text) && URL.canParse(text);
const programmerSpec = /^[a-z0-9_]{2,30}(?::[\w.,:=@/+-]{1,200})?$/;
const programmersSound = (all: readonly ProgrammerSetting[]): boolean =>
  all.length <= 8 && all.every(({ name, spec }) => name.length >= 1 && name.length <= 40 && programmerSpec.test(spec));

/** Each says for itself what is wrong with it. */
export const settingsSchema = z.object({
  HOST: z
    .string()
    .default('127.0.0.1')
    .refine((host) => loopback.includes(host), {
      error:
        'is another machine’s, but Veglia speaks no TLS itself and so listens on this machine only, behind a proxy that does. Use 127.0.0.1, ::1 or localhost.',
    }),
  PORT: wholeNumber(0, 65_535, '0'),
  DATABASE_URL: z
    .string({ error: 'is missing. `npm run demo` starts a database of its own and sets it.' })
    .refine(databaseAddress, { error: 'is no address such as postgres://user@host/database.' }),
  VEGLIA_OWNER_DATABASE_URL: z.string().optional(),
  VEGLIA_READ_DATABASE_URL: z
    .string()
    .optional()
    .refine((url) => url === undefined || databaseAddress(url), { error: 'is no address such as postgres://user@host/database.' }),
  VEGLIA_MIGRATE: z.enum(['at-start', 'apart'], { error: 'is neither at-start nor apart.' }).default('at-start'),
  VEGLIA_METRICS_PORT: wholeNumber(0, 65_535, '0'),
  VEGLIA_PUBLIC_URL: z
    .string()
    .default('')
    .transform((text) => text.split(/[\s,]+/).filter((one) => one !== ''))
    .refine((all) => all.every(address), { error: 'has what is no address such as https://bench.example.org.' }),
  VEGLIA_STATIC_DIR: z.string().optional(),
  VEGLIA_PACK_DIR: z.string().default(path.join(root, 'knowledge')),
  VEGLIA_DEMO_DIR: z.string().optional(),
  VEGLIA_METER: z
    .string()
    .optional()
    .refine((at) => at === undefined || meterAddress(at), { error: 'is no address such as 192.0.2.7:5025.' }),
  VEGLIA_PROGRAMMERS: z
    .string()
    .default('')
    .refine((text) => programmersSound(programmersOf(text)), {
      error: 'is no list such as "Bench clip=ch341a_spi; Box=serprog:dev=/dev/ttyACM0:115200".',
    })
    .transform(programmersOf),
  VEGLIA_SUPPLIERS: z
    .string()
    .default('')
    .refine((text) => suppliersOf(text).every(({ name, address: at }) => name.length >= 1 && name.length <= 60 && serviceAddress(at)), {
      error: 'is no list such as "Brelm Parts=https://parts.example.org/offers".',
    })
    .transform(suppliersOf),
  VEGLIA_MESSENGER: z
    .string()
    .optional()
    .refine((at) => at === undefined || serviceAddress(at), { error: 'is no address such as https://messages.example.org/send.' }),
  LOG_LEVEL: z.enum(logLevels, { error: `is none of ${logLevels.join(', ')}.` }).default('info'),
  VEGLIA_GRACE_SECONDS: wholeNumber(1, 600, '10'),
});

/** What the environment may say (docs/configuration.md). */
export interface Config {
  readonly host: string;
  readonly port: number;
  /** The app's own role. */
  readonly databaseUrl: string;
  /** The role that owns the tables; the same as databaseUrl where there is only one. */
  readonly ownerUrl: string;
  /** A copy that PostgreSQL keeps up to date, for lists, searches and photos. */
  readonly readUrl?: string | undefined;
  /** Someone else migrates; the server only looks whether it was done. */
  readonly migrateApart?: boolean;
  /** Where a supervisor reads figures; 0: nowhere. */
  readonly metricsPort?: number;
  /** The addresses people reach it by beside loopback; the first one stands in QR codes. */
  readonly publicUrls: readonly string[];
  readonly staticDir: string | undefined;
  readonly packDir: string;
  readonly demoDir: string | undefined;
  /** host:port of a bench meter that speaks SCPI by TCP. */
  readonly meter?: string | undefined;
  /** Chip programmers that flashrom drives here. */
  readonly programmers: readonly ProgrammerSetting[];
  /** Suppliers that answer to a part number; left out: none. */
  readonly suppliers?: readonly SupplierSetting[];
  /** Gateway for messages to customers; left out: none. */
  readonly messenger?: string | undefined;
  readonly logLevel: (typeof logLevels)[number];
  /** How long requests that are under way may take once it is told to stop, seconds. */
  readonly graceSeconds: number;
}

/** The environment says something that can’t be. */
export class ConfigRefused extends Error {}

/** A variable that is set to nothing is not set. Throws ConfigRefused with a sentence for each that is wrong. */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const given = Object.fromEntries(Object.entries(env).filter(([, value]) => value !== ''));
  const read = settingsSchema.safeParse(given);
  if (!read.success)
    throw new ConfigRefused(
      read.error.issues
        .map(({ path: [name], message }) => {
          const value = given[String(name)];
          // An address of a database may hold a password.
          const said = value === undefined || /DATABASE/.test(String(name)) ? '' : ` is "${value}", which`;
          return `${String(name)}${said} ${message}`;
        })
        .join('\n'),
    );
  const { data } = read;
  return {
    host: data.HOST,
    port: data.PORT,
    publicUrls: data.VEGLIA_PUBLIC_URL,
    databaseUrl: data.DATABASE_URL,
    ownerUrl: data.VEGLIA_OWNER_DATABASE_URL ?? data.DATABASE_URL,
    readUrl: data.VEGLIA_READ_DATABASE_URL,
    migrateApart: data.VEGLIA_MIGRATE === 'apart',
    metricsPort: data.VEGLIA_METRICS_PORT,
    staticDir: data.VEGLIA_STATIC_DIR,
    packDir: data.VEGLIA_PACK_DIR,
    demoDir: data.VEGLIA_DEMO_DIR,
    meter: data.VEGLIA_METER,
    programmers: data.VEGLIA_PROGRAMMERS,
    suppliers: data.VEGLIA_SUPPLIERS,
    messenger: data.VEGLIA_MESSENGER,
    logLevel: data.LOG_LEVEL,
    graceSeconds: data.VEGLIA_GRACE_SECONDS,
  };
}
