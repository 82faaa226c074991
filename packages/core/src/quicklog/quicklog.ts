/**
 * One free line, in any order ("fuse ok, sb 5.1, pson 0.1, harness out lit"), read into observations of this set's tests.
 * Nothing is taken by itself: each reading is shown, and a person says yes. What isn't understood stays a note.
 *
 * The words are the pack's: a test's `quick` phrases and name, an outcome's `said` phrases, id and name, a stage's `quick`. A
 * number is read by what the outcome would have to be seen as (`reading`): against the family's rail, else what was printed ("sb 5.1 printed
 * 5.2"); without either it decides little, and stays a note where it decides nothing.
 */
import type { CompiledPack, Family, TestDefinition } from '../knowledge/index.ts';
import type { Body } from '../ledger/index.ts';
import { expectedAt, measuredBy, outcomeOfReading } from '../reading/index.ts';

/** What a quick line is read under. */
export interface QuickContext {
  readonly compiled: CompiledPack;
  readonly layoutId: string;
  readonly family: Family | undefined;
  /** Outcome a test shows where nothing is wrong with what it looks at; for "ok" and "bad". */
  readonly plainOutcome: (test: TestDefinition) => string | undefined;
}

/** Entries a quick line can become. */
export type QuickBody = Extract<Body, { kind: 'test.answered' | 'blink.read' | 'set.changed' }>;

/** A part of a quick line, read. */
export interface QuickItem {
  /** The words it was read from. */
  readonly text: string;
  readonly body: QuickBody;
}

/** A quick line, read. */
export interface QuickReading {
  readonly items: readonly QuickItem[];
  /** What nothing was made of, in order. */
  readonly rest: readonly string[];
}

const good = new Set(['ok', 'okay', 'good', 'fine', 'normal', 'right']);
const bad = new Set(['bad', 'dead', 'wrong', 'faulty', 'nok', 'not ok', 'fails', 'failed']);
const unsure = /\b(?:maybe|think so|i think|perhaps)\b|\?/g;

interface Phrase {
  readonly words: readonly string[];
  readonly kind: 'test' | 'stage' | 'blink';
  readonly id: string;
}

/**
 * A line in a bench's shorthand as entries, each with the words it was read from; what isn't understood stays as a note. Linear in the
 * line's length.
 */
export function readQuickLine(line: string, context: QuickContext): QuickReading {
  const phrases = phrasesOf(context);
  const items: QuickItem[] = [];
  const rest: string[] = [];
  for (const clause of line.split(/[,;\n]+/)) {
    const text = clause.trim();
    if (text === '') continue;
    for (const segment of segmentsOf(text, phrases)) {
      const body = segment.phrase && bodyOf(segment.phrase, segment.around, context);
      if (body) items.push({ text: segment.text, body });
      else rest.push(segment.text);
    }
  }
  return { items, rest };
}

/** Without stops and dashes before it and stops behind it; in one pass, since a regular expression that looks for an end retries at each stop. */
function withoutStops(word: string): string {
  let from = 0;
  let to = word.length;
  while (from < to && (word[from] === '.' || word[from] === '-')) from += 1;
  while (to > from && word[to - 1] === '.') to -= 1;
  return word.slice(from, to);
}

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .replaceAll('’', '')
    .split(/[^a-z0-9.+_?-]+/)
    .map(withoutStops)
    .filter((word) => word !== '');

function phrasesOf({ compiled, layoutId }: QuickContext): Phrase[] {
  const phrases: Phrase[] = [
    { words: ['blinks'], kind: 'blink', id: 'blink' },
    { words: ['blink'], kind: 'blink', id: 'blink' },
  ];
  for (const test of compiled.testsOf.get(layoutId) ?? []) {
    for (const phrase of [...(test.quick ?? []), ...Object.values(test.name)])
      phrases.push({ words: wordsOf(phrase), kind: 'test', id: test.id });
  }
  for (const stage of compiled.pack.stages) {
    for (const phrase of stage.quick ?? []) phrases.push({ words: wordsOf(phrase), kind: 'stage', id: stage.id });
  }
  // Longest first: "picture cable out" is not "picture".
  return phrases.filter(({ words }) => words.length > 0).sort((a, b) => b.words.length - a.words.length);
}

interface Segment {
  readonly text: string;
  readonly phrase: Phrase | undefined;
  /** Words beside the phrase. */
  readonly around: readonly string[];
}

/** A clause holds one observation, or several that each begin with their phrase. */
function segmentsOf(text: string, phrases: readonly Phrase[]): Segment[] {
  const words = wordsOf(text);
  const found: { at: number; phrase: Phrase }[] = [];
  for (let at = 0; at < words.length;) {
    const phrase = phrases.find((one) => one.words.every((word, index) => words[at + index] === word));
    // Named again, it is the same one: "menu: no menu".
    if (phrase && found.at(-1)?.phrase.id !== phrase.id) found.push({ at, phrase });
    at += phrase?.words.length ?? 1;
  }
  const [first] = found;
  if (!first) return [{ text, phrase: undefined, around: words }];
  if (found.length === 1) {
    const around = [...words.slice(0, first.at), ...words.slice(first.at + first.phrase.words.length)];
    return [{ text, phrase: first.phrase, around }];
  }
  const before = words.slice(0, first.at);
  const segments = found.map(({ at, phrase }, index): Segment => {
    const end = found[index + 1]?.at ?? words.length;
    return { text: words.slice(at, end).join(' '), phrase, around: words.slice(at + phrase.words.length, end) };
  });
  return before.length > 0 ? [{ text: before.join(' '), phrase: undefined, around: before }, ...segments] : segments;
}

function bodyOf(phrase: Phrase, around: readonly string[], context: QuickContext): QuickBody | undefined {
  if (phrase.kind === 'stage') return around.length === 0 ? { kind: 'set.changed', v: 3, stage: phrase.id } : undefined;
  // A test's own name may end in its outcome: "key wire moves".
  const said = (around.length > 0 ? around : phrase.words).join(' ');
  if (phrase.kind === 'blink') {
    const groups = (/\d+(?:[ -]\d+){0,3}/.exec(said)?.[0] ?? '').split(/[ -]/).map(Number);
    if (groups.some((count) => !(count >= 1 && count <= 99))) return undefined;
    return { kind: 'blink.read', v: 3, groups, how: 'eye', cycles: /\btwice\b/.test(said) ? 2 : 1 };
  }
  const test = context.compiled.tests.get(phrase.id);
  if (!test || test.of?.required) return undefined;
  const told = said.replace(unsure, ' ').trim();
  const value = numberIn(told);
  const outcome = value === undefined ? outcomeNamed(test, told, context) : outcomeRead(test, value, told, context);
  if (outcome === undefined) return undefined;
  return {
    kind: 'test.answered',
    v: 2,
    test: test.id,
    outcome,
    sure: told === said.trim() ? 'sure' : 'think-so',
    ...(value === undefined ? {} : { raw: `${value.value} ${value.unit === 'ohms' ? 'Ω' : 'V'}` }),
  };
}

interface TypedValue {
  readonly value: number;
  readonly unit: 'volts' | 'ohms' | undefined;
}

/** "5.1", "5.1v", "4k7" is not read: a bench writes 4.7k. */
function numberIn(told: string): TypedValue | undefined {
  const match = /(?:^|\s)(\d+(?:\.\d+)?)\s*(v|volts?|k|kohms?|m|mohms?|r|ohms?|mv)?(?:\s|$)/.exec(told);
  if (!match) return undefined;
  const value = Number(match[1]);
  const unit = match[2] ?? '';
  if (unit.startsWith('mv')) return { value: value / 1000, unit: 'volts' };
  if (unit.startsWith('v')) return { value, unit: 'volts' };
  if (unit.startsWith('k')) return { value: value * 1000, unit: 'ohms' };
  if (unit.startsWith('m')) return { value: value * 1e6, unit: 'ohms' };
  return { value, unit: unit === '' ? undefined : 'ohms' };
}

/** The outcome whose words fit best; "ok" is the plain one, "bad" the other where there are only two. */
function outcomeNamed(test: TestDefinition, told: string, { plainOutcome }: QuickContext): string | undefined {
  const words = wordsOf(told);
  const { outcomes } = test.observe;
  const scored = outcomes.map((outcome) => {
    const own = [...(outcome.said ?? []), outcome.id.replaceAll('-', ' '), ...Object.values(outcome.name)].map(wordsOf);
    return { id: outcome.id, fits: Math.max(...own.map((phrase) => (holdsPhrase(words, phrase) ? phrase.length : 0))) };
  });
  const most = Math.max(...scored.map(({ fits }) => fits));
  const best = scored.filter(({ fits }) => fits === most);
  if (most > 0) return best.length === 1 ? best[0]?.id : undefined;
  const plain = plainOutcome(test);
  if (words.some((word) => good.has(word))) return plain;
  if (words.some((word) => bad.has(word)) && outcomes.length === 2) return outcomes.find(({ id }) => id !== plain)?.id;
  return undefined;
}

const holdsPhrase = (words: readonly string[], phrase: readonly string[]): boolean =>
  phrase.length > 0 && words.some((_, at) => phrase.every((word, index) => words[at + index] === word));

const printedIn = (told: string): number | undefined => {
  const match = /\bprinted\s+(\d+(?:\.\d+)?)/.exec(told);
  return match ? Number(match[1]) : undefined;
};

function outcomeRead(
  test: TestDefinition,
  typed: TypedValue,
  told: string,
  { compiled, layoutId, family }: QuickContext,
): string | undefined {
  const measured = measuredBy(test);
  if (!measured) return undefined;
  const behaves = /\bpuls(?:es|ing)\b/.test(told) ? 'pulsing' : /\btrips?\b/.test(told) ? 'trips' : undefined;
  const expected = expectedAt(measured.at, layoutId, compiled, family, printedIn(told));
  return outcomeOfReading(test, { ...typed, behaves }, expected);
}
