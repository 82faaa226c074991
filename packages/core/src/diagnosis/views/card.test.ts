/** The row of a list says what the explained fold says, at a fraction of its price. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, referenceCases, shipped, type Told } from '../../testing/shipped.ts';
import { bystanders, cardOf, foldCase } from '../index.ts';

const cases = referenceCases()
  // Every third: each costs two settled searches.
  .filter((_, index) => index % 3 === 0);

test.each(cases.map((one) => [one.id, one] as const))('%s', (_, { set, entries }) => {
  const input = caseOf(
    [],
    entries.map(({ body }): Told => body),
    set,
  );
  const card = cardOf(input, shipped());
  const fold = foldCase(input, shipped());
  const [top] = fold.assemblies;
  const [next] = fold.next;
  expect(card.top).toEqual({ id: top?.id, probability: top?.probability, verdict: top?.verdict });
  expect(card.next).toEqual({ kind: next?.kind, id: next?.id, ...(next?.of === undefined ? {} : { of: next.of }) });
  expect([card.layout, card.stage, card.plugged]).toEqual([fold.set.layout, fold.set.stageId, fold.set.plugged]);
});

/** One of each kind that is said to leave the next step alone. */
const saidNothing: Told[] = [
  { kind: 'note.added', v: 1, text: 'rings after six' },
  { kind: 'photo.added', v: 1, photo: '0192f000-0000-7000-8000-00000000f0f0' },
  {
    kind: 'advice.shown',
    v: 2,
    engine: '1',
    top: [{ id: 'main', probability: 0.9, verdict: 'suspect' }],
    next: { kind: 'test', id: 'torch' },
  },
  { kind: 'message.sent', v: 1, template: 'quote', language: 'en', result: 'sent' },
  { kind: 'set.shelved', v: 1, shelf: 'B2' },
  { kind: 'date.promised', v: 1, on: '2026-03-09' },
  { kind: 'text.redacted', v: 1, entry: '0192f000-0000-7000-8000-00000000f0f1', field: 'text' },
];
test('what is said to leave the next step alone does: worked out anew it is what it was', () => {
  expect(saidNothing.map((one) => (typeof one === 'string' ? one : one.kind)).sort()).toEqual([...bystanders].sort());
  const compared = cases.filter((_, index) => index % 2 === 0);
  expect(compared.length).toBeGreaterThan(8);
  for (const { set, entries } of compared) {
    const told = entries.map(({ body }): Told => body);
    const { next, ahead } = cardOf(caseOf([], told, set), shipped());
    const more = caseOf([], [...told, ...saidNothing], set);
    expect(cardOf(more, shipped(), false, { ahead, ...(next ? { next } : {}) })).toEqual(cardOf(more, shipped()));
  }
});

test('some cases were compared', () => expect(cases.length).toBeGreaterThan(20));

describe('what a card says beside the verdict', () => {
  const limit = (amountMinor: number, minutes?: number): Told => ({
    kind: 'limit.agreed',
    v: 2,
    limit: { currency: 'EUR', amountMinor },
    ...(minutes === undefined ? {} : { minutes }),
  });
  const worked: Told[] = [
    'torch=faint-picture',
    { kind: 'repair.done', v: 2, repair: 'replace.main', result: 'unchanged', minutes: 25 },
    { kind: 'part.fitted', v: 1, assembly: 'main', number: 'MB-77', source: 'new', price: { currency: 'EUR', amountMinor: 4000 } },
  ];
  const over = (told: Told[]) => cardOf(caseOf(['sound-dark'], told), shipped()).over;

  test('labour and parts together are held against the limit that was agreed', () => {
    const labour = foldCase(caseOf(['sound-dark'], worked), shipped(), 'cost', 'at-once').spent.cost.amountMinor;
    expect(labour).toBeGreaterThan(0);
    expect(over([limit(labour + 4000), ...worked]).money).toBe(false);
    expect(over([limit(labour + 3999), ...worked]).money).toBe(true);
    expect(over([limit(1_000_000, 5), ...worked])).toEqual({ money: false, minutes: true });
    expect(over(worked)).toEqual({ money: false, minutes: false });
  });

  test('what is still to be seen of a repaired set is work for the day: its hands and its waits', () => {
    const repaired: Told[] = [
      { kind: 'set.changed', v: 3, stage: 'back-off' },
      { kind: 'repair.done', v: 2, repair: 'replace.tcon', result: 'cured' },
    ];
    const ahead = (told: Told[]) => cardOf(caseOf(['lit-blank'], told), shipped()).ahead;
    const [proof, ...others] = ahead(repaired);
    expect([proof?.id, others]).toEqual(['proof', []]);
    expect(proof?.hands).toBeGreaterThan(5);
    // A T-con that was replaced soaks for two hours (common practice, no source).
    expect(proof?.wait).toBeGreaterThanOrEqual(120);
    const soaked = ahead([...repaired, { kind: 'proof.soaked', v: 1, minutes: 120, result: 'passed' }])[0];
    expect((proof?.wait ?? 0) - (soaked?.wait ?? 0)).toBe(120);
  });

  test('a part that is on its way stays on the list when its job is closed; one that nobody ordered does not', () => {
    const want = (n: number): Told => ({
      kind: 'part.wanted',
      v: 1,
      want: `0193a000-0000-4000-8000-00000000000${n}`,
      assembly: 'power',
      number: `PW-${n}`,
      source: 'new',
      price: { currency: 'EUR', amountMinor: 4800 },
    });
    const told: Told[] = [
      want(1),
      want(2),
      {
        kind: 'part.ordered',
        v: 1,
        want: '0193a000-0000-4000-8000-000000000001',
        supplier: 'Brelm Parts',
        price: { currency: 'EUR', amountMinor: 4800 },
      },
      { kind: 'job.closed', outcome: 'handed-back', minutes: 20 },
    ];
    const card = cardOf(caseOf(['dead'], told), shipped());
    expect([card.waitsFor, card.parts.map(({ number, state }) => [number, state])]).toEqual(['nothing', [['PW-1', 'on-order']]]);
  });

  test('a job that was opened again has no end', () => {
    const closed: Told = { kind: 'job.closed', outcome: 'not-worth-it', minutes: 20 };
    expect(cardOf(caseOf(['dead'], [closed]), shipped()).closedAt).toEqual(expect.any(String));
    expect(cardOf(caseOf(['dead'], [closed, { kind: 'job.reopened', reason: 'it came back' }]), shipped()).closedAt).toBeUndefined();
  });
});
