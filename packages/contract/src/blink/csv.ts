/**
 * Lights and blink tables as CSV (RFC 4180, header line, UTF-8).
 *
 * A trace: `time_s,level[,colour]`; seconds, any linear level, a colour word or nothing. A table: one row a code,
 * `id,groups,colour,after,meaning,suspects,first_check,notices,source,date,by`; groups joined by hyphens (empty: no light at all),
 * suspects as `fault=word` joined by semicolons.
 */
import { blinkTableSchema, colourNamed, lightColours, type LightColour, type LightTrace, type Problem } from '@veglia/core';
import Papa from 'papaparse';
import { missing, rowsOf } from '../csvRows.ts';

/** A recording from a file, or what is wrong with the file. */
export type ReadTrace = { readonly trace: LightTrace } | { readonly problems: readonly Problem[] };

/** Told at most; a file that is wrong throughout is wrong in its first rows, too. */
const mostProblems = 20;
/** Words for a light that shows no colour at that moment. */
const noColour = new Set(['', '-', 'off', 'dark', 'none', 'unknown']);

/** A light trace from CSV (seconds, level, colour), or every problem by row; `where` names the file in them. */
export function readTraceCsv(text: string, where = 'file'): ReadTrace {
  const { header, rows } = rowsOf(text);
  const problems: Problem[] = missing(header, ['time_s', 'level'], where);
  if (problems.length > 0) return { problems };
  const timesS: number[] = [];
  const levels: number[] = [];
  const colours: (LightColour | undefined)[] = [];
  const number = (value: string | undefined, at: string, column: string): number => {
    const read = value === undefined || value.trim() === '' ? Number.NaN : Number(value);
    if (!Number.isFinite(read)) problems.push({ code: 'schema', where: `${at}, ${column}`, value: value ?? '', expected: 'a number' });
    return read;
  };
  rows.forEach((row, index) => {
    if (problems.length >= mostProblems) return;
    const at = `${where}, row ${index + 1}`;
    timesS.push(number(row.time_s, at, 'time_s'));
    levels.push(number(row.level, at, 'level'));
    const colour = row.colour?.trim().toLowerCase() ?? '';
    const known = colourNamed(colour);
    if (!known && !noColour.has(colour))
      problems.push({ code: 'schema', where: `${at}, colour`, value: colour, expected: lightColours.join(', ') });
    colours.push(known);
  });
  if (problems.length > 0) return { problems };
  return { trace: { timesS, levels, ...(colours.some((one) => one !== undefined) ? { colours } : {}) } };
}

/** The recording as CSV: seconds, level, and the colour where it is known. */
export const writeTraceCsv = ({ timesS, levels, colours }: LightTrace): string =>
  Papa.unparse(
    timesS.map((time, i) => [time, levels[i] ?? 0, ...(colours ? [colours[i] ?? ''] : [])]),
    { newline: '\n' },
  ).replace(/^/, `time_s,level${colours ? ',colour' : ''}\n`);

const columns = ['id', 'groups', 'colour', 'after', 'meaning', 'suspects', 'first_check', 'notices', 'source', 'date', 'by'] as const;
type Row = Partial<Record<(typeof columns)[number], string>>;

/** A spreadsheet works out what begins like a formula: such a cell is written behind an apostrophe, and read without it. */
const formula = /^'*[=+\-@\t\r].*$/s;
const withoutGuard = (text: string): string => (text.startsWith("'") && formula.test(text.slice(1)) ? text.slice(1) : text);

/** A table's document, to be looked through by `blinkTableProblems`: a cell that can't be read stays as it is and is told there. */
export function readBlinkTableCsv(text: string, family: string): { document: unknown; problems: readonly Problem[] } {
  const { header, rows } = rowsOf(text);
  const problems = missing(header, ['id', 'groups', 'meaning', 'suspects', 'source', 'date', 'by'], 'table');
  const codes = rows.map((row: Row) => {
    const cell = (name: (typeof columns)[number]): string => withoutGuard(row[name]?.trim() ?? '');
    const given = (name: (typeof columns)[number], field: string): object => (cell(name) === '' ? {} : { [field]: cell(name) });
    const groups =
      cell('groups') === ''
        ? []
        : cell('groups')
            .split('-')
            .map((count) => (/^\d+$/.test(count.trim()) ? Number(count) : count));
    const suspects = Object.fromEntries(
      cell('suspects')
        .split(';')
        .filter((one) => one.trim() !== '')
        .map((one) => {
          const [suspect = '', word = ''] = one.split('=').map((part) => part.trim());
          return [suspect, word];
        }),
    );
    return {
      id: cell('id'),
      groups,
      ...given('colour', 'colour'),
      ...given('after', 'after'),
      meaning: { en: cell('meaning') },
      suspects,
      ...given('first_check', 'firstCheck'),
      ...given('notices', 'notices'),
      source: cell('source'),
      date: cell('date'),
      by: cell('by'),
    };
  });
  return { document: { format: 'veglia-blink-table', version: 1, family, codes }, problems };
}

/** A blink table as CSV (RFC 4180). Throws ZodError for what is no table. */
export function writeBlinkTableCsv(document: unknown): string {
  const { codes } = blinkTableSchema.parse(document);
  const rows = (codes as Record<string, unknown>[]).map((code) => {
    const text = (value: unknown): string => (typeof value === 'string' ? value : '');
    return {
      id: text(code.id),
      groups: (code.groups as number[]).join('-'),
      colour: text(code.colour),
      after: text(code.after),
      meaning: text((code.meaning as { en?: string }).en),
      suspects: Object.entries(code.suspects as Record<string, string>)
        .map(([suspect, word]) => `${suspect}=${word}`)
        .join('; '),
      first_check: text(code.firstCheck),
      notices: text(code.notices),
      source: text(code.source),
      date: text(code.date),
      by: text(code.by),
    };
  });
  return `${Papa.unparse(rows, { columns: [...columns], newline: '\n', escapeFormulae: formula })}\n`;
}
