import { describe, expect, test } from '@jest/globals';
import type { Body, Entry } from '../ledger/index.ts';
import { fitOf, lossAgreed, numberKey, orderRefused, partsOf, stockFor, stockItemSchema, waitOf } from './index.ts';
import { matchCases } from './matchCases.ts';
import { orderCases, partCases } from './orderCases.ts';

const entriesOf = (bodies: readonly Body[]): Entry[] =>
  bodies.map((body, index) => ({ id: `e${index}`, seq: index + 1, at: '2026-03-10T09:00:00.000Z', by: 'p', basedOn: index, body }));

describe('may a part be ordered', () => {
  test.each(orderCases.map((one) => [one.name, one] as const))('%s', (_, { bodies, own, price, refused, overMinor }) => {
    const asked = { ownSet: own === true, priceMinor: price, spentMinor: 2000, fittingMinor: 2400, trifleMinor: 500 };
    const found = orderRefused(entriesOf(bodies), asked);
    expect(found?.why ?? null).toBe(refused);
    expect(found?.overMinor).toBe(overMinor);
  });
});

// Common practice, no source: what is lost for good is agreed on paper or in a message that can be shown later.
describe('a loss is agreed in writing', () => {
  const said = (answer: object): Body[] => [
    { kind: 'quote.sent', v: 2, total: { amountMinor: 5000, currency: 'EUR' }, options: ['workaround'] },
    { kind: 'quote.answered', v: 2, answer: 'yes', ...answer },
  ];
  test.each<[string, Parameters<typeof lossAgreed>[0], Body[], boolean]>([
    ['a repair takes nothing', 'repaired', [], true],
    ['handed back as it came', 'handed-back', [], true],
    ['nobody was asked', 'workaround', [], false],
    ['said on the phone', 'workaround', said({ option: 'workaround', how: 'phone' }), false],
    ['nobody wrote down how', 'workaround', said({ option: 'workaround' }), false],
    ['signed', 'workaround', said({ option: 'workaround', how: 'signed' }), true],
    ['by message', 'repaired-with-known-flaw', said({ option: 'with-known-flaw', how: 'message' }), true],
    ['something else was signed', 'workaround', said({ option: 'repair', how: 'signed' }), false],
    ['declined in writing', 'workaround', said({ answer: 'no', option: 'workaround', how: 'signed' }), false],
  ])('%s', (_, outcome, bodies, agreed) => {
    expect(lossAgreed(outcome, entriesOf(bodies))).toBe(agreed);
  });
});

describe('where a part is', () => {
  test.each(partCases.map((one) => [one.name, one] as const))('%s', (_, { bodies, states, waits, expectedOn }) => {
    const parts = partsOf(entriesOf(bodies));
    expect(parts.map(({ state }) => state)).toEqual(states);
    expect(waitOf(parts)).toEqual({ waits, ...(expectedOn === undefined ? {} : { expectedOn }) });
  });
});

describe('what fits', () => {
  test.each(matchCases.map((one) => [one.name, one] as const))('%s', (_, { wanted, item, fit, doubts = [] }) => {
    const found = fitOf(wanted, stockItemSchema.parse(item));
    expect(found?.how ?? null).toBe(fit);
    expect(found?.doubts ?? []).toEqual(doubts);
  });
  test('the surest first; what is known not to fit last; what was retired not at all', () => {
    const wanted = { assembly: 'power', number: 'P1', model: 'QK3' };
    const made = (n: number, change: object) =>
      stockItemSchema.parse({
        id: `0193a000-0000-4000-8000-00000000000${n}`,
        what: 'board',
        assembly: 'power',
        condition: 'new',
        ...change,
      });
    const items = [
      made(1, { number: 'P1', fits: [{ model: 'QK3', how: 'does-not-fit' }] }),
      made(2, { number: 'P9', fits: [{ model: 'QK3', how: 'same' }] }),
      made(3, { number: 'P2', fits: [{ number: 'P1', how: 'supersedes' }] }),
      made(4, { number: 'P1' }),
      made(5, { number: 'P1', retired: true }),
    ];
    expect(stockFor(wanted, items).map(({ item }) => item.id.slice(-1))).toEqual(['4', '3', '2', '1']);
  });
  test('a row that names nothing holds for everything, and so is refused', () => {
    expect(
      stockItemSchema.safeParse({
        id: '0193a000-0000-4000-8000-000000000001',
        what: 'part',
        number: 'X',
        condition: 'new',
        fits: [{ how: 'same' }],
      }).success,
    ).toBe(false);
  });
});

test('numbers are the same whatever stands between their letters and digits', () => {
  expect(numberKey('pw 48-a/2')).toBe('PW48A2');
  expect(numberKey('ＰＷ48')).toBe('PW48');
});
