import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { FlashDid } from '../ledger/index.ts';
import { bootConfigCases } from './bootConfigCases.ts';
import { brokenOffCases, coldCases, sessionCases } from './sessionCases.ts';
import { flashFindings, foldFlash, gatesOf, nextFlashStep, type FlashAim, type FlashSession } from './session.ts';

const fold = (did: readonly FlashDid[]): FlashSession =>
  foldFlash('one', did) ??
  (() => {
    throw new Error('never opened');
  })();
const named = (aim: FlashAim | undefined): string | undefined =>
  aim && [aim.step, aim.area ?? (aim.of === 'this' ? undefined : aim.of)].filter(Boolean).join(' ');
const aimOf = (name: string): FlashAim => {
  const [step, area] = name.split(' ');
  return { step, ...(area === undefined ? {} : { area }) } as FlashAim;
};

describe('work on a memory, as a bench expects it', () => {
  test.each([...sessionCases, ...brokenOffCases, ...coldCases, ...bootConfigCases].map((one) => [one.name, one] as const))(
    '%s',
    (_, { did, next, may, says }) => {
      const session = fold(did);
      if (next !== undefined) expect(named(nextFlashStep(session)) ?? 'none').toBe(next);
      for (const [step, wanted] of Object.entries(may ?? {}))
        expect([step, gatesOf(session, aimOf(step))]).toEqual([step, wanted === 'open' ? [] : wanted]);
      if (says !== undefined) expect(flashFindings(session)).toEqual(says);
    },
  );
  test('what never was opened is no session', () => {
    expect(foldFlash('one', [{ step: 'started', result: 'starts' }])).toBeUndefined();
  });
});

const [a, b] = ['a'.repeat(64), 'b'.repeat(64)];
const image = '0192f000-0000-7000-8000-00000000f1a5';
/** The step that is due, done well. */
const due = (session: FlashSession): FlashDid | undefined => wellDone.find(({ step }) => step === nextFlashStep(session)?.step);
/** Whatever a bench may record, in any order. */
const anyStep = fc.constantFrom<FlashDid>(
  { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer'] },
  { step: 'supply', ioVolts: 1.8, programmerVolts: 3.3, feeds: ['programmer'] },
  { step: 'entered', way: 'clip', with: 'blue' },
  { step: 'identified', of: 'this', result: 'found', bytes: 4096 },
  { step: 'identified', of: 'this', result: 'not-detected' },
  { step: 'read', area: 'whole', sha256: a, bytes: 4096, extent: 'whole', image },
  { step: 'read', area: 'whole', sha256: b, bytes: 4096, extent: 'whole', image },
  { step: 'chosen', area: 'whole', sha256: b, bytes: 4096, image, source: 'web', fit: 'unsure' },
  { step: 'began', area: 'whole', work: 'erase', programmer: 'Bench clip' },
  { step: 'erased', area: 'whole' },
  { step: 'began', area: 'whole', work: 'program', programmer: 'Bench clip' },
  { step: 'blank', area: 'whole', result: 'blank', extent: 'whole' },
  { step: 'blank', area: 'whole', result: 'not-blank', extent: 'whole' },
  { step: 'programmed', area: 'whole', sha256: b },
  { step: 'verified', area: 'whole', result: 'equal', extent: 'whole' },
  { step: 'verified', area: 'whole', result: 'differs', extent: 'whole' },
  { step: 'way-out', checked: ['supply-off', 'clip-off', 'bridges-none'] },
  { step: 'started', result: 'starts' },
);
const wellDone: readonly FlashDid[] = [
  { step: 'supply', ioVolts: 3.3, programmerVolts: 3.3, feeds: ['programmer'] },
  { step: 'entered', way: 'clip', with: 'blue' },
  { step: 'identified', of: 'this', result: 'found', bytes: 4096 },
  { step: 'read', area: 'whole', sha256: a, bytes: 4096, extent: 'whole', image },
  { step: 'chosen', area: 'whole', sha256: b, bytes: 4096, image, source: 'web', fit: 'unsure' },
  { step: 'erased', area: 'whole' },
  { step: 'blank', area: 'whole', result: 'blank', extent: 'whole' },
  { step: 'programmed', area: 'whole', sha256: b },
  { step: 'verified', area: 'whole', result: 'equal', extent: 'whole' },
  { step: 'way-out', checked: ['supply-off', 'clip-off', 'bridges-none'] },
  { step: 'started', result: 'starts' },
];
// What goes in may be chosen whenever.
const order = ['supply', 'entered', 'identified', 'read', 'read', 'erased', 'blank', 'programmed', 'verified', 'way-out', 'started'];
const inOrder = (steps: readonly string[]): boolean => {
  let at = 0;
  for (const step of steps) if (step === order[at]) at += 1;
  return at === order.length;
};
const gated = new Set<string>(['entered', 'identified', 'read', 'erased', 'blank', 'programmed', 'verified', 'started']);

test('in whatever order steps are offered: who takes only open ones has gone through all of them, in order, before the first start', () => {
  const opened: FlashDid = { step: 'opened', memory: 'spi-nor', name: 'U1', areas: ['whole'], why: 'restart-loop', plan: 'rewrite' };
  let starts = 0;
  fc.assert(
    fc.property(
      fc.array(fc.oneof({ weight: 3, arbitrary: fc.constant(null) }, { weight: 1, arbitrary: anyStep }), { minLength: 30, maxLength: 120 }),
      (offered) => {
        const did: FlashDid[] = [opened];
        for (const random of offered) {
          const one = random ?? due(fold(did));
          if (!one) continue;
          const aim = { step: one.step, ...('area' in one ? { area: one.area } : {}) } as FlashAim;
          if (gated.has(one.step) && gatesOf(fold(did), aim).length > 0) continue;
          did.push(one);
          if (one.step !== 'started') continue;
          starts += 1;
          expect(inOrder(did.map(({ step }) => step))).toBe(true);
          break;
        }
      },
    ),
    { seed: 15, numRuns: 400 },
  );
  expect(starts).toBeGreaterThan(100);
});
