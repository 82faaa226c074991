/** Tables as CSV (RFC 4180, header line, UTF-8). */
import type { Problem } from '@veglia/core';
import Papa from 'papaparse';

/** A header and what stands under it. */
export interface Rows {
  readonly header: readonly string[];
  readonly rows: readonly Readonly<Record<string, string>>[];
}

/** Header and rows; names of columns in lower case. */
export function rowsOf(text: string): Rows {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (name) => name.trim().toLowerCase(),
  });
  return { header: meta.fields ?? [], rows: data };
}

/** Columns that aren’t there. */
export const missing = (header: readonly string[], wanted: readonly string[], where: string): Problem[] =>
  wanted.filter((name) => !header.includes(name)).map((name) => ({ code: 'schema', where, expected: `a column ${name}` }));
