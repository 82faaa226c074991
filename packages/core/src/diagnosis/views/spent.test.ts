import { expect, test } from '@jest/globals';
import { defaultSettings, type Body, type Entry } from '../../ledger/index.ts';
import { shipped } from '../../testing/shipped.ts';
import { cardOf } from './card.ts';
import { foldCase } from './fold.ts';
import { sumCases } from './sumCases.ts';

const labour: Body[] = [
  { kind: 'job.opened', v: 3, set: { layout: 'led-tcon' } },
  { kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] },
  { kind: 'test.answered', v: 2, test: 'torch', outcome: 'faint-picture', sure: 'sure', minutes: 30 },
];
const input = (bodies: readonly Body[]) => ({
  set: { layout: 'led-tcon' },
  settings: { ...defaultSettings, currency: 'EUR', rateMinorPerHour: 4000 },
  entries: [...labour, ...bodies].map((body, index): Entry => ({
    id: `e${index}`,
    seq: index + 1,
    at: '2026-01-01T00:00:00Z',
    by: 'someone',
    basedOn: index,
    body,
  })),
});

test.each(sumCases.map((one) => [one.name, one] as const))('%s', (_, { bodies, parts, limit, overMoney }) => {
  const { spent } = foldCase(input(bodies), shipped(), 'cost', 'at-once');
  expect([spent.cost.amountMinor, spent.parts.amountMinor, spent.total.amountMinor]).toEqual([2000, parts, 2000 + parts]);
  expect([spent.limit?.amountMinor ?? null, spent.over.money]).toEqual([limit, overMoney]);
  // The shelf says the same.
  expect(cardOf(input(bodies), shipped()).over).toEqual(spent.over);
});
test('a part whose entry was undone costs nothing; minutes are held against their own limit', () => {
  const fitted = sumCases.flatMap(({ bodies }) => bodies).find(({ kind }) => kind === 'part.fitted');
  const undone = foldCase(
    input([
      ...(fitted ? [fitted] : []),
      { kind: 'entry.retracted', v: 1, entry: 'e3', reason: 'wrong job' },
      { kind: 'limit.agreed', v: 2, minutes: 29 },
    ]),
    shipped(),
    'cost',
    'at-once',
  );
  expect(undone.spent).toMatchObject({ parts: { amountMinor: 0 }, limitMinutes: 29, over: { money: false, minutes: true } });
});
