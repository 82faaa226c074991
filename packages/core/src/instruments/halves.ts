/** The panel cut in halves, ribbon by ribbon: which side, or what both share. One side is accused only where its own cut works and the other's fails. */
import { waitsFor, type Finding, type Instrument } from './instrument.ts';

const seen = ['unmeasured', 'alive', 'unchanged'] as const;
const trial = (id: string) => ({ id, kind: 'choice', unit: '', usual: 'unmeasured', choices: seen }) as const;

export const halves: Instrument = {
  id: 'halves',
  measures: true,
  fields: [
    // With one ribbon and a link the near side hangs on the ribbon itself: only the link, and with it the far side, can be cut.
    { id: 'ribbons', kind: 'choice', unit: '', usual: 'each', choices: ['each', 'link'] },
    trial('bothOut'),
    trial('leftOut'),
    trial('rightOut'),
  ],
  run({ text }) {
    const [both, left, right] = [text('bothOut'), text('leftOut'), text('rightOut')];
    const say = (code: string, tone: Finding['tone']) => ({ figures: [], findings: [{ code, tone, values: {} }], needs: [] });
    if ([both, left, right].every((one) => one === 'unmeasured')) return waitsFor(['bothOut', 'leftOut', 'rightOut']);
    if (both === 'unchanged') return say('halves-tcon', 'bad');
    if (text('ribbons') === 'link') {
      if (right === 'alive') return say('halves-far', 'bad');
      if (right === 'unchanged') return say('halves-not-far', 'doubt');
      return say('halves-link-next', 'doubt');
    }
    if (left === 'unmeasured' || right === 'unmeasured') return say('halves-other-first', 'doubt');
    if (left === 'alive' && right === 'alive') return say('halves-shared', 'doubt');
    if (left === 'alive') return say('halves-left', 'bad');
    if (right === 'alive') return say('halves-right', 'bad');
    return both === 'alive' ? say('halves-both', 'doubt') : say('halves-neither', 'doubt');
  },
};
