/** Instruments of the bench. What is expected was written first: benchCases.ts, workCases.ts. */
import { describe, expect, test } from '@jest/globals';
import { bodySchemas } from '../ledger/index.ts';
import { benchCases } from './benchCases.ts';
import { impossibleLogs, workCases } from './workCases.ts';
import { instruments, runInstrument } from './index.ts';

describe('instruments of the bench', () => {
  test.each([...benchCases, ...workCases])('$instrument: $name', ({ instrument, typed, says, figures = {}, values }) => {
    const outcome = runInstrument(
      instruments.find(({ id }) => id === instrument)!,
      typed,
    );
    expect(outcome).toMatchObject({ ok: true });
    if (!outcome.ok) return;
    expect(outcome.report.findings.map(({ code }) => code)).toEqual(says);
    for (const [id, value] of Object.entries(figures)) {
      const found = outcome.report.figures.find((one) => one.id === id)?.value ?? Number.NaN;
      expect(Math.abs(found / value - 1)).toBeLessThan(0.01);
    }
    if (values) expect(outcome.report.findings[0]?.values).toMatchObject(values);
  });
  test.each(impossibleLogs)('strips: %s is refused, naming it', (log) => {
    const outcome = runInstrument(
      instruments.find(({ id }) => id === 'strips')!,
      { strips: '4', leds: '8', log },
    );
    expect(outcome).toMatchObject({ ok: false, problems: [{ code: 'cannot-be', typed: log }] });
  });
  test.each(['chip-off', 'chip-on', 'reflow'])('%s: a name the ledger can’t take is refused, naming it', (id) => {
    for (const chip of ['U402; U403', 'x'.repeat(61)]) {
      const outcome = runInstrument(
        instruments.find((one) => one.id === id)!,
        { chip },
      );
      expect(outcome).toMatchObject({ ok: false, problems: [{ code: 'cannot-be', typed: chip }] });
      expect(bodySchemas['set.changed'].safeParse({ kind: 'set.changed', v: 3, lifted: [{ name: chip, what: 'part' }] }).success).toBe(
        false,
      );
    }
    expect(bodySchemas['set.changed'].safeParse({ kind: 'set.changed', v: 3, lifted: [{ name: 'U402', what: 'part' }] }).success).toBe(
      true,
    );
  });
  test.each(['1-9 gone', '0 gone', '3-1 stays', 'gone', '2 perhaps'])('halving: %s is refused, naming it', (trials) => {
    const outcome = runInstrument(
      instruments.find(({ id }) => id === 'halving')!,
      { parts: '8', lifts: trials },
    );
    expect(outcome).toMatchObject({ ok: false, problems: [{ code: 'cannot-be', typed: trials }] });
  });
});
