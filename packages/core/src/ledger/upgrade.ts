/**
 * Old bodies into current ones, on reading; stored rows are never rewritten.
 *
 * `upgraders[kind][n]` turns version n into version n + 1. A kind without upgraders is still at version 1.
 */
import type { z } from 'zod';
import type { Problem } from '../problems.ts';
import { asRecord, renamed } from '../renamed.ts';
import { bodySchemas, type Body } from './bodies.ts';

/** Makes a body of one version into the next. */
export type Upgrader = (body: Record<string, unknown>) => Record<string, unknown>;

/** The ledger's language at one point of its history: what bodies look like now, and how older ones get there. */
export interface LedgerFormat {
  readonly schemas: Readonly<Record<string, z.ZodType>>;
  readonly upgraders: Readonly<Record<string, Readonly<Record<number, Upgrader>>>>;
}

type Bag = Record<string, unknown>;

const layoutGuess = (layout: unknown): unknown => renamed(layout, 'odds', 'probabilities');
const each = (list: unknown): unknown => (Array.isArray(list) ? list.map((one) => renamed(one, 'odds', 'probability')) : list);

/** Where a body says how likely something is, that was called `odds` until version 2 of the case file. */
const withoutOdds = {
  set: (body: Bag): Bag => {
    const set = asRecord(body.set);
    return set ? { ...body, set: { ...set, layout: layoutGuess(set.layout) } } : body;
  },
  layout: (body: Bag): Bag => ({ ...body, layout: layoutGuess(body.layout) }),
  reading: (body: Bag): Bag => {
    const named = renamed(body, 'odds', 'probability') as Bag;
    return Object.hasOwn(named, 'alternatives') ? { ...named, alternatives: each(named.alternatives) } : named;
  },
  top: (body: Bag): Bag => ({ ...body, top: each(body.top) }),
};

/** Versions of all bodies, and the way up to them. */
export const currentFormat: LedgerFormat = {
  schemas: bodySchemas,
  upgraders: {
    'pack.pinned': { 1: (body) => body },
    // Version 2 of these only has more that may be said.
    'job.opened': { 1: (body) => body, 2: withoutOdds.set },
    'layout.found': { 1: withoutOdds.layout },
    'advice.shown': { 1: withoutOdds.top },
    'symptom.reported': { 1: (body) => body },
    'limit.agreed': { 1: (body) => body },
    'quote.sent': { 1: (body) => body },
    'quote.answered': { 1: (body) => body },
    'photo.added': { 1: (body) => body },
    'blink.read': { 1: (body) => body, 2: withoutOdds.reading },
    'test.answered': { 1: (body) => body },
    'repair.done': { 1: (body) => body },
    'set.changed': { 1: (body) => body, 2: (body) => body },
    'wait.started': { 1: (body) => body },
    'wait.ended': { 1: (body) => body },
    'reading.taken': { 1: (body) => body },
    'job.closed': { 1: (body) => body },
  },
};

/** Versions of bodies as files of version 1 wrote them, for a body that leaves out its own. */
const inFirstFiles: Readonly<Record<string, number>> = { 'job.opened': 2, 'layout.found': 1, 'advice.shown': 1, 'blink.read': 2 };

/**
 * A case file of any version as one of version 2, in which `odds` is `probability` and a guessed layout has `probabilities`. What isn't
 * one of version 1 comes back as it is. Throws nothing: what is wrong with it is for the schema to say.
 */
export function upgradeCaseFile(document: unknown): unknown {
  const file = asRecord(document);
  if (file?.format !== 'veglia-case' || file.version !== 1) return document;
  return { ...upgradeCaseParts(file), version: 2 };
}

/** Set and entries alone, as they stand in a case file or a reference case of version 1. */
export function upgradeCaseParts(file: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const set = asRecord(file.set);
  return {
    ...file,
    ...(set ? { set: { ...set, layout: layoutGuess(set.layout) } } : {}),
    ...(Array.isArray(file.entries) ? { entries: file.entries.map(withVersion) } : {}),
  };
}

function withVersion(entry: unknown): unknown {
  const head = asRecord(entry);
  const body = asRecord(head?.body);
  if (!head || !body || body.v !== undefined || typeof body.kind !== 'string' || !Object.hasOwn(inFirstFiles, body.kind)) return entry;
  return { ...head, body: { ...body, v: inFirstFiles[body.kind] } };
}

/** Version that bodies of this kind are written in. */
export function currentVersion(kind: string, format: LedgerFormat = currentFormat): number {
  return 1 + Object.keys(format.upgraders[kind] ?? {}).length;
}

/** A body, read and brought up to date, or what is wrong with it. */
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
