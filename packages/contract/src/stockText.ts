/** Items of the stock as lines and as CSV (docs/formats.md): what somebody types or keeps in a spreadsheet, and back. */
import {
  donorStates,
  fitHows,
  stockConditions,
  stockItemSchema,
  stockKinds,
  type Problem,
  type StockItem,
  type StockItemInput,
} from '@veglia/core';
import Papa from 'papaparse';
import { rowsOf } from './csvRows.ts';
import { parseAmount, plainAmount } from './money.ts';
import type { Orders } from './parts.ts';

type FitRow = StockItem['fits'][number];
type DonorBoard = NonNullable<StockItem['donor']>['boards'][number];
type DonorChip = NonNullable<StockItem['donor']>['chips'][number];

/** A line that can’t be read, counted from 1. */
export interface WrongLine {
  readonly line: number;
  readonly text: string;
}
/** What was read, and the lines that can’t be. */
export interface Lines<T> {
  readonly rows: readonly T[];
  readonly wrong: readonly WrongLine[];
}

function linesOf<T>(text: string, split: RegExp, read: (line: string) => T | undefined): Lines<T> {
  const rows: T[] = [];
  const wrong: WrongLine[] = [];
  text.split(split).forEach((raw, index) => {
    const line = raw.trim();
    if (line === '') return;
    const row = read(line);
    if (row === undefined) wrong.push({ line: index + 1, text: line });
    else rows.push(row);
  });
  return { rows, wrong };
}

const oneOf = <T extends string>(all: readonly T[], text: string): T | undefined => all.find((one) => one === text);

/** "supersedes: number=PW-48A, model=QK3-50". */
export function parseFits(text: string): Lines<FitRow> {
  return linesOf(text, /[\n;]/, (line) => {
    const [said = '', named = ''] = line.split(/:(.*)/s);
    const how = oneOf(fitHows, said.trim().toLowerCase());
    const pairs = named.split(',').map((pair) => pair.split('=').map((one) => one.trim()));
    const fields = new Map(pairs.map(([key = '', value = '']) => [key.toLowerCase(), value]));
    const known = [...fields].every(([key, value]) => ['number', 'model', 'panel'].includes(key) && value !== '');
    if (how === undefined || !known || fields.size === 0) return undefined;
    return { how, ...Object.fromEntries(fields) };
  });
}
/** As `parseFits` reads it, a line each. */
export const formatFits = (rows: readonly FitRow[]): string[] =>
  rows.map(
    ({ how, number, model, panel }) =>
      `${how}: ${Object.entries({ number, model, panel })
        .flatMap(([key, value]) => (value === undefined ? [] : [`${key}=${value}`]))
        .join(', ')}`,
  );

/** "power PW-48/A good": the assembly first, how it is last; a state that is left out is "untested". */
export function parseDonorBoards(text: string): Lines<DonorBoard> {
  return linesOf(text, /\n/, (line) => {
    const words = line.split(/\s+/);
    const state = oneOf(donorStates, words.at(-1)?.toLowerCase() ?? '');
    const [assembly = '', ...number] = state === undefined ? words : words.slice(0, -1);
    if (!/^[a-z][a-z0-9.-]*$/.test(assembly) || number.length === 0) return undefined;
    return { assembly, number: number.join(' '), state: state ?? 'untested' };
  });
}
/** As `parseDonorBoards` reads it. */
export const formatDonorBoards = (boards: readonly DonorBoard[]): string[] =>
  boards.map(({ assembly, number, state }) => `${assembly} ${number} ${state}`);

/** "25Q64 good". */
export function parseDonorChips(text: string): Lines<DonorChip> {
  return linesOf(text, /\n/, (line) => {
    const words = line.split(/\s+/);
    const state = oneOf(donorStates, words.at(-1)?.toLowerCase() ?? '');
    const marking = (state === undefined ? words : words.slice(0, -1)).join(' ');
    return marking === '' ? undefined : { marking, state: state ?? 'untested' };
  });
}
/** As `parseDonorChips` reads it. */
export const formatDonorChips = (chips: readonly DonorChip[]): string[] => chips.map(({ marking, state }) => `${marking} ${state}`);

/** Columns of the CSV, in this order. */
export const stockColumns = [
  'what',
  'number',
  'name',
  'assembly',
  'revision',
  'panel',
  'condition',
  'place',
  'count',
  'cost',
  'price',
  'supplier',
  'warranty_days',
  'least',
  'fits',
  'strips',
  'leds',
  'length_mm',
  'connector',
  'led_volts',
  'note',
  'id',
] as const;

/** A spreadsheet takes a cell that begins like this for a formula; with an apostrophe before it, it stays text. */
const formulaStart = /^[=+\-@\t\r]/;
const plainCell = (text: string): string => (formulaStart.test(text) ? `'${text}` : text);

/** Items with their counts as CSV; amounts in their own currency’s units. */
export function formatStockCsv(items: readonly { readonly item: StockItem; readonly count: number }[]): string {
  const data = items.map(({ item, count }) => {
    const amount = (money: StockItem['price']): string => (money ? plainAmount(money.amountMinor, money.currency) : '');
    const cells: Record<(typeof stockColumns)[number], string | number | undefined> = {
      what: item.what,
      number: item.number,
      name: item.name,
      assembly: item.assembly,
      revision: item.revision,
      panel: item.panel,
      condition: item.condition,
      place: item.place,
      count,
      cost: amount(item.cost),
      price: amount(item.price),
      supplier: item.supplier,
      warranty_days: item.warrantyDays,
      least: item.least,
      fits: formatFits(item.fits).join('; '),
      strips: item.strips?.strips,
      leds: item.strips?.leds,
      length_mm: item.strips?.lengthMm,
      connector: item.strips?.connector,
      led_volts: item.strips?.ledVolts,
      note: item.note,
      id: item.id,
    };
    return stockColumns.map((column) => plainCell(String(cells[column] ?? '')));
  });
  return `${Papa.unparse({ fields: [...stockColumns], data }, { newline: '\r\n' })}\r\n`;
}

/** A row as it would be kept; `count`: pieces there are to be, where the row says. */
export interface StockRow {
  /** Of the file, the header being row 1. */
  readonly row: number;
  readonly item: StockItemInput;
  readonly count?: number;
}
/** Rows of a file, and what is wrong with the others. */
export interface StockCsv {
  readonly rows: readonly StockRow[];
  readonly problems: readonly (Problem & { readonly row: number })[];
}

/** `newId` gives rows without an id of a known item theirs. Nothing is thrown: each row that can’t be read is told with its column. */
export function parseStockCsv(text: string, currency: string, newId: () => string): StockCsv {
  const { header, rows } = rowsOf(text);
  const lacking = (['what', 'number', 'condition'] as const).filter((column) => !header.includes(column));
  if (lacking.length > 0)
    return { rows: [], problems: lacking.map((column) => ({ row: 1, code: 'schema', where: column, expected: `a column ${column}` })) };
  const good: StockRow[] = [];
  const problems: (Problem & { row: number })[] = [];
  rows.forEach((raw, index) => {
    const row = index + 2;
    const before = problems.length;
    const wrong = (where: string, value: string, expected: string): void =>
      void problems.push({ row, code: 'schema', where, value, expected });
    const cell = (column: (typeof stockColumns)[number]): string | undefined => {
      const typed = raw[column]?.trim().replace(/^'(?=[=+\-@\t\r])/, '');
      return typed === '' ? undefined : typed;
    };
    const number = (column: (typeof stockColumns)[number], whole: boolean): number | undefined => {
      const typed = cell(column);
      if (typed === undefined) return undefined;
      const value = Number(typed.replace(',', '.'));
      if (Number.isFinite(value) && value >= 0 && (!whole || Number.isInteger(value))) return value;
      wrong(column, typed, whole ? 'a whole number' : 'a number');
      return undefined;
    };
    const amount = (column: 'cost' | 'price') => {
      const typed = cell(column);
      if (typed === undefined) return undefined;
      const amountMinor = parseAmount(typed, currency);
      if (amountMinor === undefined) wrong(column, typed, `an amount in ${currency}`);
      return amountMinor === undefined ? undefined : { amountMinor, currency };
    };
    const fits = parseFits(cell('fits') ?? '');
    for (const { text: said } of fits.wrong) wrong('fits', said, `one of ${fitHows.join(', ')}, a colon, and number=, model= or panel=`);
    const [strips, leds] = [number('strips', true), number('leds', true)];
    const figures = { lengthMm: number('length_mm', false), connector: cell('connector'), ledVolts: number('led_volts', false) };
    const count = number('count', true);
    const candidate = {
      id: cell('id') ?? newId(),
      what: cell('what')?.toLowerCase(),
      number: cell('number'),
      name: cell('name'),
      assembly: cell('assembly'),
      revision: cell('revision'),
      panel: cell('panel'),
      condition: cell('condition')?.toLowerCase(),
      place: cell('place'),
      cost: amount('cost'),
      price: amount('price'),
      supplier: cell('supplier'),
      warrantyDays: number('warranty_days', true),
      least: number('least', true),
      note: cell('note'),
      fits: [...fits.rows],
      ...(strips !== undefined && leds !== undefined ? { strips: { strips, leds, ...figures } } : {}),
    };
    const read = stockItemSchema.safeParse(JSON.parse(JSON.stringify(candidate)));
    if (!read.success)
      for (const issue of read.error.issues) {
        const where = issue.path.join('.') || 'row';
        const expected = where === 'what' ? stockKinds.join(', ') : where === 'condition' ? stockConditions.join(', ') : issue.message;
        wrong(where, String(raw[String(issue.path[0])] ?? ''), expected);
      }
    if (problems.length === before && read.success) good.push({ row, item: read.data, ...(count === undefined ? {} : { count }) });
  });
  return { rows: good, problems };
}

/** Parts of open jobs as CSV, a line each; amounts in their own currency’s units. */
export function formatOrdersCsv(jobs: Orders['jobs']): string {
  const fields = ['job', 'state', 'assembly', 'number', 'supplier', 'price', 'currency', 'expected'];
  const data = jobs.flatMap(({ number: job, parts }) =>
    parts.map(({ state, assembly, number, supplier, price, expectedOn }) =>
      [
        String(job),
        state,
        assembly,
        number,
        supplier ?? '',
        plainAmount(price.amountMinor, price.currency),
        price.currency,
        expectedOn ?? '',
      ].map(plainCell),
    ),
  );
  return `${Papa.unparse({ fields, data }, { newline: '\r\n' })}\r\n`;
}
