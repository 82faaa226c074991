/** Rows of a table as typed, and the document they make. No screen in here. */
import { parseSeen, type BlinkCode } from '@veglia/core';

export interface TypedRow {
  id: string;
  groups: string;
  colour: string;
  after: string;
  meaning: string;
  suspects: string;
  firstCheck: string;
  source: string;
  date: string;
  by: string;
  notices: string;
}

export const typedRow = (code: BlinkCode): TypedRow => ({
  id: code.id,
  groups: code.groups.join('-'),
  colour: code.colour ?? '',
  after: code.after ?? '',
  meaning: code.meaning.en,
  suspects: Object.entries(code.suspects)
    .map(([suspect, word]) => `${suspect}=${word}`)
    .join('; '),
  firstCheck: code.firstCheck ?? '',
  source: code.source,
  date: code.date,
  by: code.by,
  notices: code.notices ?? '',
});

/** A row's id from its code: lower-case, for ever. */
const idOf = ({ id, groups, colour }: TypedRow): string =>
  id !== ''
    ? id
    : ['code', groups.replace(/[^0-9]+/g, '-').replace(/^-|-$/g, '') || 'none', colour].filter((part) => part !== '').join('-');

function groupsOf(typed: string): readonly unknown[] {
  if (typed.trim() === '') return [];
  const seen = parseSeen(typed);
  // What can't be read is told with its row, as it was typed.
  return seen && 'groups' in seen ? seen.groups : [typed];
}

export function tableOf(family: string, rows: readonly TypedRow[]): { format: string; version: number; family: string; codes: object[] } {
  const given = (field: string, value: string): object => (value.trim() === '' ? {} : { [field]: value.trim() });
  return {
    format: 'veglia-blink-table',
    version: 1,
    family,
    codes: rows.map((row) => ({
      id: idOf(row),
      groups: groupsOf(row.groups),
      ...given('colour', row.colour),
      ...given('after', row.after),
      meaning: { en: row.meaning.trim() },
      suspects: Object.fromEntries(
        row.suspects
          .split(';')
          .filter((one) => one.trim() !== '')
          .map((one) => {
            const [suspect = '', word = ''] = one.split('=').map((part) => part.trim());
            return [suspect, word];
          }),
      ),
      ...given('firstCheck', row.firstCheck),
      ...given('notices', row.notices),
      source: row.source.trim(),
      date: row.date,
      by: row.by.trim(),
    })),
  };
}

export interface SeenCode {
  readonly code: string;
  readonly n: number;
  /** What it turned out to be, most often first; undefined where nobody found out. */
  readonly found: readonly { readonly what: string | undefined; readonly n: number }[];
}

/** Codes of a family's closed jobs, with what they turned out to be. */
export function codesSeen(counts: readonly { readonly code: string; readonly found: string | null; readonly n: number }[]): SeenCode[] {
  const codes = new Map<string, Map<string | undefined, number>>();
  for (const { code, found, n } of counts) {
    const of = codes.get(code) ?? new Map<string | undefined, number>();
    codes.set(code, of.set(found ?? undefined, (of.get(found ?? undefined) ?? 0) + n));
  }
  return [...codes]
    .map(([code, found]) => ({
      code,
      n: [...found.values()].reduce((a, b) => a + b, 0),
      found: [...found].map(([what, n]) => ({ what, n })).sort((a, b) => b.n - a.n),
    }))
    .sort((a, b) => b.n - a.n || (a.code < b.code ? -1 : 1));
}
