/**
 * Old bodies into current ones, on reading; stored rows are never rewritten.
 *
 * `upgraders[kind][n]` turns version n into version n + 1. A kind without upgraders is still at version 1.
 */
import type { z } from 'zod';
import type { Problem } from '../problems.ts';
import { bodySchemas, type Body } from './bodies.ts';

export type Upgrader = (body: Record<string, unknown>) => Record<string, unknown>;

/** The ledger's language at one point of its history: what bodies look like now, and how older ones get there. */
export interface LedgerFormat {
  readonly schemas: Readonly<Record<string, z.ZodType>>;
  readonly upgraders: Readonly<Record<string, Readonly<Record<number, Upgrader>>>>;
}

export const currentFormat: LedgerFormat = {
  schemas: bodySchemas,
  upgraders: {
    'pack.pinned': { 1: (body) => body },
    // Version 2 of these only has more that may be said.
    'job.opened': { 1: (body) => body },
    'symptom.reported': { 1: (body) => body },
    'limit.agreed': { 1: (body) => body },
    'quote.sent': { 1: (body) => body },
    'quote.answered': { 1: (body) => body },
    'photo.added': { 1: (body) => body },
    'blink.read': { 1: (body) => body },
    'test.answered': { 1: (body) => body },
    'repair.done': { 1: (body) => body },
    'set.changed': { 1: (body) => body },
    'wait.started': { 1: (body) => body },
    'wait.ended': { 1: (body) => body },
    'job.closed': { 1: (body) => body },
  },
};

export function currentVersion(kind: string, format: LedgerFormat = currentFormat): number {
  return 1 + Object.keys(format.upgraders[kind] ?? {}).length;
}

export type ReadBody = { readonly body: Body } | { readonly problems: readonly Problem[] };

/** A stored or typed body, upgraded and checked. Files written by hand may leave out `v`: it is then the current one. */
export function readBody(raw: unknown, where: string, format: LedgerFormat = currentFormat): ReadBody {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    return { problems: [{ code: 'schema', where, expected: 'an object with a kind' }] };
  }
  const given = raw as Record<string, unknown>;
  const kind = given.kind;
  if (typeof kind !== 'string' || !Object.hasOwn(format.schemas, kind)) {
    return { problems: [{ code: 'entry-kind-unknown', where: `${where}.kind`, value: String(kind) }] };
  }
  const newest = currentVersion(kind, format);
  const version = given.v ?? newest;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1 || version > newest) {
    const expected = `1-${newest}`;
    return { problems: [{ code: 'entry-version-unknown', where: `${where}.v`, value: JSON.stringify(version), expected }] };
  }
  let body: Record<string, unknown> = { ...given, v: version };
  for (let step = version; step < newest; step += 1) {
    const upgrade = format.upgraders[kind]?.[step];
    if (upgrade) body = { ...upgrade(body), kind, v: step + 1 };
  }
  const result = format.schemas[kind]?.safeParse(body);
  if (result?.success) return { body: result.data as Body };
  return {
    problems: (result?.error.issues ?? []).map((issue) => ({
      code: 'schema',
      where: [where, ...issue.path.map(String)].join('.'),
      expected: issue.message,
    })),
  };
}
