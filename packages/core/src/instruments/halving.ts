/** Parts side by side, one of which shorts all: which to lift next, by halves, and what the others carry once one is gone. */
import { waitsFor, type Instrument } from './instrument.ts';

interface Trial {
  readonly lifted: ReadonlySet<number>;
  readonly gone: boolean;
}

/** "1-4 gone; 2, 5 stays": what was off the board, and what the short did. Throws RangeError, naming what can’t be read. */
function readTrials(text: string, parts: number): Trial[] {
  return text
    .split(/[;\n]+/)
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .map((one) => {
      const match = /^([\d,\s-]+)\s+(gone|stays)$/i.exec(one);
      const lifted = new Set<number>();
      for (const piece of (match?.[1] ?? '').split(/[,\s]+/).filter(Boolean)) {
        const [, from, to = from] = /^(\d+)(?:-(\d+))?$/.exec(piece) ?? [];
        if (from === undefined || to === undefined || Number(from) < 1 || Number(to) > parts || Number(to) < Number(from))
          throw new RangeError(one);
        for (let part = Number(from); part <= Number(to); part += 1) lifted.add(part);
      }
      if (!match || lifted.size === 0) throw new RangeError(one);
      return { lifted, gone: match[2]?.toLowerCase() === 'gone' };
    });
}

export const halving: Instrument = {
  id: 'halving',
  fields: [
    { id: 'parts', kind: 'quantity', unit: '', whole: true, least: 2, most: 40 },
    { id: 'lifts', kind: 'text', unit: '', optional: true },
  ],
  run({ number, text }) {
    const parts = number('parts');
    if (parts === undefined) return waitsFor(['parts']);
    const trials = readTrials(text('lifts'), parts);
    // One is short: the short went with it, or it was still on the board.
    const left = Array.from({ length: parts }, (_, index) => index + 1).filter((part) =>
      trials.every(({ lifted, gone }) => lifted.has(part) === gone),
    );
    const [only, ...others] = left;
    if (only === undefined) return { figures: [], findings: [{ code: 'half-more', tone: 'bad', values: {} }], needs: [] };
    if (others.length === 0)
      return {
        figures: [{ id: 'extraPercent', value: 100 / (parts - 1), unit: '%' }],
        findings: [{ code: 'half-found', tone: 'bad', values: { part: only, others: parts - 1 } }],
        needs: [],
      };
    const lift = left.slice(0, Math.floor(left.length / 2));
    return {
      figures: [{ id: 'trialsWorst', value: Math.ceil(Math.log2(left.length)), unit: '' }],
      findings: [{ code: 'half-next', tone: 'doubt', values: { lift: lift.join(', ') } }],
      needs: [],
    };
  },
};
