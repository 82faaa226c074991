/**
 * An instrument of the bench: fields that take numbers as people write them, and what they amount to. The command line and the screens are made from
 * what stands here: another instrument is one more file and its words.
 */
import { formatQuantity, parseQuantity, type Unit } from '../electrical/index.ts';

/** A field. */
export interface Field {
  readonly id: string;
  readonly kind: 'quantity' | 'list' | 'choice' | 'text';
  readonly unit: Unit;
  readonly optional?: true;
  /** Taken where nothing is typed. */
  readonly usual?: string;
  readonly choices?: readonly string[];
  /** Bounds in SI, inclusive. */
  readonly least?: number;
  readonly most?: number;
  /** Counted: no fraction. */
  readonly whole?: true;
}

/** What stands in the fields, read: numbers in SI. */
export interface Values {
  readonly number: (id: string) => number | undefined;
  readonly list: (id: string) => readonly number[];
  readonly text: (id: string) => string;
}

/** A figure that comes out. */
export interface Figure {
  readonly id: string;
  readonly value: number;
  readonly unit: Unit;
}
/** Something to be said; its sentence is made from the code. */
export interface Finding {
  readonly code: string;
  readonly tone: 'good' | 'bad' | 'doubt';
  readonly values: Readonly<Record<string, string | number>>;
}
/** A row of parts, each with what was read, what it reads in truth by all that was read, and how probable it is to be the one. Ω. */
export interface PlotAlong {
  readonly kind: 'along';
  readonly points: readonly {
    readonly read?: number;
    readonly middle: number;
    readonly low: number;
    readonly high: number;
    readonly probability: number;
    /** As printed. */
    readonly name?: string;
    /** Index of the part it hangs on, where the row branches; -1: none. Left out: the one before it. */
    readonly on?: number;
  }[];
}

/** Contacts of a row from 1 on, as they are to be for the next trial; `guilty` and `innocent` are known. */
export interface PlotContacts {
  readonly kind: 'contacts';
  readonly contacts: readonly ('open' | 'covered' | 'guilty' | 'innocent')[];
}

/** What an instrument makes of its fields; `needs`: fields without which nothing can be said yet. */
export interface Report {
  readonly figures: readonly Figure[];
  readonly findings: readonly Finding[];
  readonly needs: readonly string[];
  readonly plot?: PlotAlong | PlotContacts;
}

/** An instrument. Its run throws RangeError for values that can’t go together. */
export interface Instrument {
  readonly id: string;
  readonly fields: readonly Field[];
  /** A simulated set shows something on it; the others calculate, or ask what only a hand knows. */
  readonly measures?: true;
  /** Work on the set itself: in a job it is recorded once the set is unplugged with its rails down. */
  readonly asksDown?: true;
  /** Fields that go on from what another instrument recorded: own field from its field. */
  readonly startsFrom?: { readonly instrument: string; readonly fields: Readonly<Record<string, string>> };
  run(values: Values): Report;
}

/** What is wrong with a field, and what was typed. */
export interface FieldProblem {
  readonly field: string;
  readonly code: 'not-a-number' | 'too-small' | 'too-large' | 'not-whole' | 'not-a-choice' | 'unknown-field' | 'cannot-be';
  readonly typed: string;
  readonly bound?: string;
}

/** The report with what was understood, or all that can’t be. */
export type Outcome =
  | { readonly ok: true; readonly read: Readonly<Record<string, string>>; readonly report: Report }
  | { readonly ok: false; readonly problems: readonly FieldProblem[] };

/** Runs an instrument on what was typed; a number stands for itself, in SI. */
export function runInstrument(instrument: Instrument, typed: Readonly<Record<string, string | number>>): Outcome {
  const problems: FieldProblem[] = [];
  const numbers = new Map<string, number>();
  const lists = new Map<string, readonly number[]>();
  const texts = new Map<string, string>();
  const read: Record<string, string> = {};
  for (const id of Object.keys(typed))
    if (!instrument.fields.some((one) => one.id === id)) problems.push({ field: id, code: 'unknown-field', typed: String(typed[id]) });
  const check = (field: Field, text: string): number | undefined => {
    const value = parseQuantity(text, field.unit);
    const bound = (limit: number): { readonly bound: string } => ({ bound: formatQuantity(limit, field.unit) });
    if (value === undefined) problems.push({ field: field.id, code: 'not-a-number', typed: text });
    else if (field.least !== undefined && value < field.least)
      problems.push({ field: field.id, code: 'too-small', typed: text, ...bound(field.least) });
    else if (field.most !== undefined && value > field.most)
      problems.push({ field: field.id, code: 'too-large', typed: text, ...bound(field.most) });
    else if (field.whole && !Number.isInteger(value)) problems.push({ field: field.id, code: 'not-whole', typed: text });
    else return value;
    return undefined;
  };
  for (const field of instrument.fields) {
    const given = Object.hasOwn(typed, field.id) ? typed[field.id] : undefined;
    const text = String(given ?? '').trim() || (field.usual ?? '');
    if (text === '') continue;
    if (field.kind === 'text') texts.set(field.id, text);
    else if (field.kind === 'choice') {
      if (field.choices?.includes(text)) texts.set(field.id, text);
      else problems.push({ field: field.id, code: 'not-a-choice', typed: text, bound: field.choices?.join(', ') ?? '' });
    } else if (field.kind === 'list') {
      // A comma with a blank behind it parts; without one it is a decimal comma.
      const parts = text.split(/[;\s]+|,\s+/).filter((part) => part !== '');
      const values = parts.map((part) => check(field, part));
      if (values.every((one) => one !== undefined)) lists.set(field.id, values);
    } else {
      const value = check(field, text);
      if (value !== undefined) numbers.set(field.id, value);
    }
    const number = numbers.get(field.id);
    const list = lists.get(field.id);
    if (number !== undefined) read[field.id] = formatQuantity(number, field.unit, 6);
    else if (list) read[field.id] = list.map((one) => formatQuantity(one, field.unit, 6)).join('; ');
    else if (texts.has(field.id)) read[field.id] = text;
  }
  if (problems.length > 0) return { ok: false, problems };
  const values: Values = {
    number: (id) => numbers.get(id),
    list: (id) => lists.get(id) ?? [],
    text: (id) => texts.get(id) ?? '',
  };
  try {
    return { ok: true, read, report: instrument.run(values) };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return { ok: false, problems: [{ field: '', code: 'cannot-be', typed: error.message }] };
  }
}

/** Fields that are still empty, of those that are needed. */
export const emptyOf = (values: Values, ...ids: readonly string[]): string[] =>
  ids.filter((id) => values.number(id) === undefined && values.list(id).length === 0 && values.text(id) === '');
/** Nothing can be said yet. */
export const waitsFor = (needs: readonly string[]): Report => ({ figures: [], findings: [], needs });
