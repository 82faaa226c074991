import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import { InputRefused } from '../problems.ts';
import { caseOf, shipped } from '../testing/shipped.ts';
import { foldCase } from '../diagnosis/index.ts';
import {
  bodySchemas,
  currentVersion,
  entryKinds,
  liveEntries,
  parseCase,
  personalFields,
  plainFields,
  readBody,
  type EntryKind,
  type LedgerFormat,
} from './index.ts';

const fixture: unknown = JSON.parse(readFileSync(new URL('./fixture-v1.case.json', import.meta.url), 'utf8'));

const problemsOf = (document: unknown): unknown => {
  try {
    parseCase(document);
  } catch (error) {
    return (error as InputRefused).problems;
  }
  return undefined;
};

describe('entries of version 1', () => {
  test('every kind has one in the fixture, and all are still read', () => {
    const { input } = parseCase(fixture);
    expect(new Set(input.entries.map((entry) => entry.body.kind))).toEqual(new Set(entryKinds));
    for (const { body } of input.entries) expect(body.v).toBe(currentVersion(body.kind));
  });

  test('fold to the same facts as when they were written', () => {
    const { input } = parseCase(fixture);
    const fold = foldCase(input, shipped());
    expect(input.settings).toEqual({
      rateMinorPerHour: 5200,
      waitShare: 0.2,
      currency: 'EUR',
      hazardMinor: 300,
      wrongPartMinor: 6000,
      wrongPartShare: 0.15,
      newSetMinor: 42_000,
      orderFreeMinor: 1000,
    });
    expect(fold.set).toMatchObject({ layout: 'led-tcon', stageId: 'back-off', plugged: false, verified: true, strap: true, out: [] });
    expect(fold.closed).toBe(false);
    expect(fold.assemblies[0]?.id).toBe('main');
    expect(fold.cautionsRead).toEqual(['back-off']);
  });
});

describe('a case file of version 1, whose probabilities were called odds', () => {
  const first: unknown = JSON.parse(readFileSync(new URL('./fixture-v1-odds.case.json', import.meta.url), 'utf8'));
  /** The same by hand in the words of version 2. */
  const layout = { probabilities: { 'led-tcon': 0.7, 'one-board': 0.3 } };
  const second = {
    format: 'veglia-case',
    version: 2,
    set: { layout, ageYears: 6 },
    entries: [
      { body: { kind: 'job.opened', set: { layout, ageYears: 6 } } },
      { body: { kind: 'symptom.reported', symptoms: ['blinking'] } },
      {
        body: {
          kind: 'blink.read',
          groups: [3],
          colour: 'red',
          cycles: 2,
          how: 'camera',
          probability: 0.9,
          alternatives: [{ groups: [4], probability: 0.1 }],
        },
      },
      { body: { kind: 'blink.read', groups: [3], cycles: 1, probability: 0.8, alternatives: [{ groups: [2], probability: 0.2 }] } },
      { body: { kind: 'advice.shown', engine: 'veglia-core/4', top: [{ id: 'power', probability: 0.4, verdict: 'suspect' }] } },
      { body: { kind: 'layout.found', layout: { probabilities: { 'led-tcon': 1 } } } },
    ],
  };

  test('says what it said: bodies with and without a version of their own', () => {
    expect(parseCase(first).input).toEqual(parseCase(second).input);
  });

  test('and a file of version 2 may not say odds', () => {
    expect(problemsOf({ ...(first as object), version: 2 })).toEqual(
      expect.arrayContaining([expect.objectContaining({ code: 'schema', where: 'case.set.layout' })]),
    );
    expect(problemsOf({ format: 'veglia-case', version: 3, set: { layout: 'led-tcon' }, entries: [] })).toBeDefined();
  });
});

describe('upgrading', () => {
  /** A later ledger: version 2 of a note counts its words, version 3 renames the text. */
  const later: LedgerFormat = {
    schemas: {
      ...bodySchemas,
      'note.added': z.strictObject({ kind: z.literal('note.added'), v: z.literal(3), content: z.string(), words: z.number() }),
    },
    upgraders: {
      'note.added': {
        1: (body) => ({ ...body, words: String(body.text).split(' ').length }),
        2: ({ text, ...body }) => ({ ...body, content: text }),
      },
    },
  };

  test('goes through every version in between', () => {
    expect(readBody({ kind: 'note.added', v: 1, text: 'two words' }, 'here', later)).toEqual({
      body: { kind: 'note.added', v: 3, content: 'two words', words: 2 },
    });
  });

  test.each([
    ['a version from the future', { kind: 'note.added', v: 4, content: 'x', words: 1 }, 'entry-version-unknown'],
    ['a kind nobody knows', { kind: 'note.sung', v: 1 }, 'entry-kind-unknown'],
    ['a version that is no number', { kind: 'note.added', v: 'one', text: 'x' }, 'entry-version-unknown'],
    ['a body that lacks a field', { kind: 'note.added', v: 1 }, 'schema'],
    ['something that is no object', 'note', 'schema'],
  ])('%s is refused', (_, raw, code) => {
    expect(readBody(raw, 'here')).toEqual({ problems: [expect.objectContaining({ code })] });
  });
});

describe('case files', () => {
  test('written by hand may leave out id, seq, at, by and v; the order is the file’s', () => {
    const { input } = parseCase({
      format: 'veglia-case',
      version: 2,
      set: { layout: 'led-tcon' },
      entries: [{ body: { kind: 'note.added', text: 'first' } }, { body: { kind: 'note.added', text: 'second' } }],
    });
    expect(input.entries.map(({ seq, body }) => [seq, body.kind === 'note.added' && body.text])).toEqual([
      [1, 'first'],
      [2, 'second'],
    ]);
  });

  test('all that is wrong is told at once, with its place', () => {
    expect(
      problemsOf({
        format: 'veglia-case',
        version: 2,
        set: { layout: 'led-tcon' },
        entries: [
          { body: { kind: 'test.answered', test: 'torch', outcome: 'nothing' } },
          { seq: 1, body: { kind: 'note.added', text: 'x' } },
          { body: { kind: 'entry.retracted', entry: 99, reason: 'x' } },
          { body: { kind: 'job.closed', outcome: 'sold', minutes: -1 } },
        ],
      }),
    ).toEqual([
      expect.objectContaining({ code: 'schema', where: 'case.entries[0].body.sure' }),
      expect.objectContaining({ code: 'schema', where: 'case.entries[3].body.outcome' }),
      expect.objectContaining({ code: 'schema', where: 'case.entries[3].body.minutes' }),
      expect.objectContaining({ code: 'retraction-without-target', value: 99 }),
    ]);
  });

  test.each([
    ['another format', { format: 'notes', version: 1, set: { layout: 'led-tcon' }, entries: [] }],
    ['no set', { format: 'veglia-case', version: 2, entries: [] }],
    ['an unknown field', { format: 'veglia-case', version: 2, set: { layout: 'led-tcon' }, entries: [], colour: 'red' }],
  ])('%s is refused', (_, document) => {
    expect(problemsOf(document)).toEqual(expect.arrayContaining([expect.objectContaining({ code: 'schema' })]));
  });
});

describe('retraction', () => {
  test('takes one entry back; taking the retraction back restores it', () => {
    const once = caseOf(['sound-dark'], ['torch=nothing', { kind: 'entry.retracted', entry: 2, reason: 'wrong set' }]);
    expect(liveEntries(once.entries).map((entry) => entry.seq)).toEqual([1, 3]);
    const twice = caseOf(
      ['sound-dark'],
      [
        'torch=nothing',
        { kind: 'entry.retracted', entry: 2, reason: 'wrong set' },
        { kind: 'entry.retracted', entry: 3, reason: 'was right' },
      ],
    );
    expect(liveEntries(twice.entries).map((entry) => entry.seq)).toEqual([1, 2, 4]);
  });

  test('leaves probabilities exactly as if it had never been said', () => {
    const never = foldCase(caseOf(['sound-dark'], ['cut.power-main=dark']), shipped());
    const taken = foldCase(
      caseOf(['sound-dark'], ['torch=nothing', { kind: 'entry.retracted', entry: 2, reason: 'x' }, 'cut.power-main=dark']),
      shipped(),
    );
    expect(taken.assemblies.map(({ id, probability }) => [id, probability])).toEqual(
      never.assemblies.map(({ id, probability }) => [id, probability]),
    );
  });
});

describe('the state of the set', () => {
  test('plugging in ends rails down and verified', () => {
    const { set } = foldCase(
      caseOf(
        ['dead'],
        [
          { kind: 'set.changed', railsDown: true, verified: true },
          { kind: 'set.changed', plugged: true },
        ],
      ),
      shipped(),
    );
    expect(set).toMatchObject({ plugged: true, railsDown: false, verified: false });
  });

  test('a test leaves the set as its procedure ends: opened, unplugged again, everything back in', () => {
    const { set } = foldCase(caseOf(['restart-loop'], ['cut.picture=unchanged']), shipped());
    expect(set).toMatchObject({ stageId: 'back-off', plugged: false, railsDown: true, verified: false, out: [] });
  });

  test('what is pulled and not put back stays out', () => {
    const { set } = foldCase(
      caseOf(
        ['dead'],
        [
          { kind: 'set.changed', pulled: ['keys', 'radio'] },
          { kind: 'set.changed', restored: ['radio'] },
        ],
      ),
      shipped(),
    );
    expect(set.out).toEqual(['keys']);
  });
});

interface JsonSchema {
  readonly type?: string;
  readonly enum?: unknown;
  readonly const?: unknown;
  readonly pattern?: string;
  readonly format?: string;
  readonly properties?: Readonly<Record<string, JsonSchema>>;
  readonly additionalProperties?: JsonSchema | boolean;
  readonly items?: JsonSchema;
  readonly prefixItems?: readonly JsonSchema[];
  readonly anyOf?: readonly JsonSchema[];
  readonly oneOf?: readonly JsonSchema[];
}

/** Places of text that somebody could write anything into: no list of words, no pattern, no format. */
function textsOf(schema: JsonSchema, path = ''): string[] {
  const { type, properties = {}, additionalProperties, items, prefixItems = [], anyOf = [], oneOf = [] } = schema;
  const open = type === 'string' && schema.enum === undefined && schema.const === undefined && !schema.pattern && !schema.format;
  if (open) return [path];
  return [
    ...Object.entries(properties).flatMap(([key, one]) => textsOf(one, path === '' ? key : `${path}.${key}`)),
    ...(typeof additionalProperties === 'object' ? textsOf(additionalProperties, `${path}{}`) : []),
    ...(items ? textsOf(items, `${path}[]`) : []),
    ...prefixItems.flatMap((one) => textsOf(one, `${path}[]`)),
    ...[...anyOf, ...oneOf].flatMap((one) => textsOf(one, path)),
  ];
}

test.each(Object.entries(bodySchemas))(
  'each text of %s is either somebody’s own words, which can be erased, or names a thing',
  (kind, schema) => {
    const texts = textsOf(z.toJSONSchema(schema, { io: 'input' }) as JsonSchema);
    const own = personalFields[kind as EntryKind] ?? [];
    const plain = plainFields[kind as EntryKind] ?? [];
    expect([...new Set(texts)].sort()).toEqual([...own, ...plain].sort());
  },
);

test('a shelf may be named by one letter, and not by none', () => {
  const shelved = (shelf: string): boolean => 'body' in readBody({ kind: 'set.shelved', shelf }, 'x');
  expect([shelved('A'), shelved(' '), shelved('x'.repeat(60)), shelved('x'.repeat(61))]).toEqual([true, false, true, false]);
});
