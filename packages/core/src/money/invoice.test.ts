import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Body, Entry } from '../ledger/index.ts';
import { invoiceLines, invoiceOf, labourMinor, taxOf } from './index.ts';
import { invoiceCases, taxCases } from './invoiceCases.ts';

const entriesOf = (bodies: readonly Body[]): Entry[] =>
  bodies.map((body, index) => ({ id: `e${index}`, seq: index + 1, at: '2026-03-10T09:00:00.000Z', by: 'p', basedOn: index, body }));
const settings = { rateMinorPerHour: 4800, currency: 'EUR' };

describe('the bill of a job', () => {
  test.each(invoiceCases.map((one) => [one.name, one] as const))('%s', (_, { bodies, lines, total }) => {
    const found = invoiceLines(entriesOf(bodies), settings);
    expect(found.map(({ what, amountMinor }) => [what, amountMinor / 100])).toEqual(lines);
    expect(
      taxOf(
        found.map(({ amountMinor }) => ({ amountMinor, basisPoints: 1900 })),
        true,
      ).total / 100,
    ).toBe(total);
  });

  test('an open job has none, and one that was opened again neither', () => {
    expect(invoiceLines(entriesOf([{ kind: 'job.reopened', v: 1, reason: 'back' }]), settings)).toEqual([]);
    const twice: Body[] = [
      { kind: 'job.closed', v: 2, outcome: 'repaired', minutes: 60 },
      { kind: 'job.reopened', v: 1, reason: 'back' },
    ];
    expect(invoiceLines(entriesOf(twice), settings)).toEqual([]);
  });
});

test('a bill that was written is not changed by another rate or tax later', () => {
  const closed: Body = {
    kind: 'job.closed',
    v: 2,
    outcome: 'repaired',
    minutes: 60,
    rateMinorPerHour: 4800,
    tax: { basisPoints: 1900, held: true },
  };
  const later = { rateMinorPerHour: 6000, currency: 'EUR' };
  const bill = invoiceOf(entriesOf([closed]), later, { basisPoints: 2100, held: false });
  expect([bill.total, bill.tax, bill.rule]).toEqual([4800, 766, { basisPoints: 1900, held: true }]);
  // Closed before they were kept: by what the shop says now. 60.00 and 21 % on top.
  const old: Body = { kind: 'job.closed', v: 2, outcome: 'repaired', minutes: 60 };
  expect(invoiceOf(entriesOf([old]), later, { basisPoints: 2100, held: false }).total).toBe(7260);
});

describe('tax', () => {
  test.each(taxCases.map((one) => [one.name, one] as const))('%s', (_, { lines, held, net, tax, total }) => {
    const sums = taxOf(
      lines.map(([amountMinor, basisPoints]) => ({ amountMinor, basisPoints })),
      held,
    );
    expect({ net: sums.net, tax: sums.tax, total: sums.total }).toEqual({ net, tax, total });
  });

  const line = fc.record({
    amountMinor: fc.integer({ min: -1_000_000_000, max: 1_000_000_000 }),
    basisPoints: fc.constantFrom(0, 100, 700, 1900, 2125, 2500),
  });
  const bill = fc.array(line, { maxLength: 20 });

  test('net and tax add up to the last minor unit, whatever the lines', () => {
    fc.assert(
      fc.property(bill, fc.boolean(), (lines, held) => {
        const { net, tax, total, rates } = taxOf(lines, held);
        expect(net + tax).toBe(total);
        const sum = lines.reduce((all, { amountMinor }) => all + amountMinor, 0);
        expect(held ? total : net).toBe(sum);
        for (const rate of rates) for (const value of [rate.net, rate.tax, rate.total]) expect(Number.isInteger(value)).toBe(true);
      }),
      { seed: 1, numRuns: 400 },
    );
  });

  test('the order of the lines, and how an amount is parted among them, change nothing', () => {
    fc.assert(
      fc.property(bill, fc.boolean(), (lines, held) => {
        const sums = taxOf(lines, held);
        expect(taxOf(lines.toReversed(), held)).toEqual(sums);
        const parted = lines.flatMap(({ amountMinor, basisPoints }) => {
          const first = Math.trunc(amountMinor / 3);
          return [first, amountMinor - first].map((part) => ({ amountMinor: part, basisPoints }));
        });
        expect(taxOf(parted, held)).toEqual(sums);
      }),
      { seed: 2, numRuns: 200 },
    );
  });

  test('against whole numbers of any size: 2 · |rounded − exact| is at most 1, and half goes away from zero', () => {
    fc.assert(
      fc.property(line, fc.boolean(), ({ amountMinor, basisPoints }, held) => {
        const { tax } = taxOf([{ amountMinor, basisPoints }], held);
        const divisor = BigInt(held ? 10_000 + basisPoints : 10_000);
        const exact = BigInt(amountMinor) * BigInt(basisPoints);
        const twice = 2n * (BigInt(tax) * divisor - exact);
        expect(twice <= divisor && twice >= -divisor).toBe(true);
        if (twice === divisor) expect(exact >= 0n).toBe(true);
        if (twice === -divisor) expect(exact <= 0n).toBe(true);
      }),
      { seed: 3, numRuns: 1000 },
    );
  });

  test('labour by the minute', () => {
    expect([labourMinor(60, 4800), labourMinor(20, 4999), labourMinor(0.5, 4800), labourMinor(1, 90)]).toEqual([4800, 1666, 40, 2]);
  });
});
