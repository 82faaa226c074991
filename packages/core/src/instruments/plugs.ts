/**
 * A short that is looked for plug by plug: the rail to chassis with everything on, then with one load after the other off and left off. What each load
 * takes with it follows from the readings before and after: conductances add up.
 */
import { parseQuantity } from '../electrical/index.ts';
import { waitsFor, type Finding, type Instrument } from './instrument.ts';

/** Above this a rail is not called short, Ω (common practice, no source: benches say 8 to 50). */
const shortBelow = 8;
/** A load whose own ohms are below that, and that takes most of what was left of the current with it, is short. */
const mostOfIt = 0.4;
/** Two readings so near are the same, share: a probe's contact. */
const same = 0.05;

interface Step {
  readonly load: string;
  readonly ohms: number;
}

/** "speakers 2.1; usb 2k2". Throws RangeError, naming what can’t be read. */
function readSteps(text: string): Step[] {
  return text
    .split(/[;\n]+/)
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .map((one) => {
      const match = /^(.+?)[\s=:]+(\S+(?: ?[kM]?(?:Ω|ohms?))?)$/i.exec(one);
      const ohms = match?.[2] === undefined ? undefined : parseQuantity(match[2], 'Ω');
      if (!match?.[1] || ohms === undefined || ohms < 0) throw new RangeError(one);
      return { load: match[1].trim(), ohms };
    });
}

const siemens = (ohms: number): number => 1 / Math.max(ohms, 1e-3);

export const plugs: Instrument = {
  id: 'plugs',
  measures: true,
  fields: [
    { id: 'all', kind: 'quantity', unit: 'Ω', least: 0, most: 1e8 },
    { id: 'off', kind: 'text', unit: '', optional: true },
    { id: 'more', kind: 'choice', unit: '', usual: 'no', choices: ['no', 'yes'] },
  ],
  run(values) {
    const all = values.number('all');
    if (all === undefined) return waitsFor(['all']);
    const steps = readSteps(values.text('off'));
    const say = (code: string, tone: Finding['tone'], own: Finding['values'] = {}, ohms?: number): ReturnType<Instrument['run']> => ({
      figures: ohms === undefined ? [] : [{ id: 'ownOhms', value: ohms, unit: 'Ω' }],
      findings: [{ code, tone, values: own }],
      needs: [],
    });
    const taken = steps.map(({ load, ohms }, index) => {
      const before = index === 0 ? all : (steps[index - 1]?.ohms ?? all);
      return { load, before, after: ohms, own: siemens(before) - siemens(ohms) };
    });
    const fell = taken.find(({ before, after }) => after < before * (1 - same));
    if (fell) return say('reading-fell', 'doubt', { load: fell.load });
    const last = steps.at(-1)?.ohms ?? all;
    // A load is short where it carried much of what the rail drew, and little by itself.
    const short = taken.filter(({ own }) => own > 0 && 1 / own < shortBelow && own > siemens(all) * mostOfIt);
    if (short.length > 0 && last >= shortBelow) {
      const loads = short.map(({ load }) => load).join(', ');
      const least = Math.min(...short.map(({ own }) => 1 / own));
      return say(short.length === 1 ? 'short-leaves' : 'shorts-leave', 'bad', { loads }, least);
    }
    if (all >= shortBelow && short.length === 0) return say(taken.length > 1 && last > all * 2 ? 'no-one-load' : 'no-short', 'good');
    if (steps.length === 0 || values.text('more') === 'yes') return say('take-off-next', 'doubt');
    return last < shortBelow ? say('short-on-board', 'bad', {}, last) : say('no-one-load', 'doubt');
  },
};
