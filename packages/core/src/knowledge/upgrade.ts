/**
 * Pack documents of older versions into the current one, on reading. A stored document is never rewritten: it keeps the hash it was
 * imported under.
 *
 *   1 -> 2   a row of words: `odds` became `likelihoods` (tests and looks)
 */
import { z } from 'zod';
import { asRecord, renamed } from '../renamed.ts';
import { packSchema } from './schema.ts';

/** Of the pack format as it is written today; older ones are read. */
export const packVersion = 2;

/** Any value: what isn't a pack of an older version comes back as it is, for the schema to refuse. Throws nothing. */
export function upgradePack(document: unknown): unknown {
  const pack = asRecord(document);
  if (pack?.format !== 'veglia-pack' || pack.version !== 1) return document;
  return {
    ...pack,
    version: packVersion,
    ...(pack.tests === undefined
      ? {}
      : { tests: each(pack.tests, (test) => within(test, 'likelihood', (block) => within(block, 'rows', row))) }),
    ...(pack.looks === undefined ? {} : { looks: each(pack.looks, (look) => within(look, 'rows', row)) }),
  };
}

/** A pack document of any version that was ever published, as the current one. */
export const packDocumentSchema = z.preprocess(upgradePack, packSchema);

const row = (one: unknown): unknown => renamed(one, 'odds', 'likelihoods');
const each = (list: unknown, change: (one: unknown) => unknown): unknown => (Array.isArray(list) ? list.map(change) : list);

function within(item: unknown, key: string, change: (one: unknown) => unknown): unknown {
  const record = asRecord(item);
  return record && Object.hasOwn(record, key) ? { ...record, [key]: each(record[key], change) } : item;
}
