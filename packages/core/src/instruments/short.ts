/** The milliohm walk along a rail: which capacitor is short, where to read next, and when to stop. */
import {
  fittedRow,
  nextPoint,
  parseQuantity,
  railWithBranches,
  twoShorts,
  usualWalk,
  walkProbabilities,
  type WalkModel,
  type WalkReading,
} from '../electrical/index.ts';
import { waitsFor, type Finding, type Instrument, type PlotAlong } from './instrument.ts';

/** Sure enough to take one off. */
const stopAt = 0.95;
/** Named beside the likeliest, if they are as likely as this. */
const worthNaming = 0.05;
/** With fewer readings, or less than half of the row read, a bulge between two shorts isn't seen; longer rows take too long to hold against two. */
const readForTwo = { least: 5, share: 0.5, most: 24 };
/** Most capacitors in a row: the choice of the next point stays under a tenth of a second. */
const mostCapacitors = 40;

/** "1 291m; 4 0.22": number of the capacitor from 1, and its reading. Throws RangeError, naming what can’t be read. */
function readAlong(text: string): WalkReading[] {
  return text
    .split(/[;\n]+/)
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .map((one) => {
      const match = /^(\d{1,3})[\s=:]+(.+)$/.exec(one);
      const ohms = match?.[2] === undefined ? undefined : parseQuantity(match[2], 'Ω');
      if (!match?.[1] || ohms === undefined || ohms < 0 || ohms > 100) throw new RangeError(one);
      return { at: Number(match[1]) - 1, ohms };
    });
}

/** "C241 C242; C243": as printed, in the order of their numbers. */
const namesIn = (text: string): readonly string[] => text.split(/[;,\s]+/).filter((one) => one !== '');

/** The same readings give the same advice: numbers that only depend on them (Park and Miller). */
function numbersOf(readings: readonly WalkReading[]): () => number {
  let state = readings.reduce((sum, { at, ohms }) => (sum * 31 + at * 7919 + Math.round(ohms * 1e6)) % 2_147_483_646, 17) + 1;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

export const short: Instrument = {
  id: 'short',
  measures: true,
  fields: [
    { id: 'names', kind: 'text', unit: '', optional: true },
    { id: 'capacitors', kind: 'quantity', unit: '', whole: true, least: 2, most: mostCapacitors },
    { id: 'branches', kind: 'text', unit: '', optional: true },
    { id: 'along', kind: 'text', unit: '', optional: true },
    { id: 'noisePercent', kind: 'quantity', unit: '%', usual: String(usualWalk.noise * 100), least: 0.1, most: 20 },
    { id: 'driftOhms', kind: 'quantity', unit: 'Ω', usual: '2m', least: 0.0001, most: 0.1 },
    { id: 'takenOff', kind: 'choice', unit: '', usual: 'unmeasured', choices: ['unmeasured', 'gone', 'stays', 'none-left'] },
  ],
  run({ number, text }) {
    const names = namesIn(text('names'));
    const capacitors = number('capacitors') ?? (names.length >= 2 ? names.length : undefined);
    if (capacitors === undefined) return waitsFor(['capacitors']);
    if (names.length > 0 && names.length !== capacitors) throw new RangeError(`${names.length} names, ${capacitors} capacitors`);
    if (names.length > mostCapacitors) throw new RangeError(`${names.length} names`);
    /** As it is printed, with its number on the rail. */
    const nameOf = (at: number): string | number => (names[at] === undefined ? at + 1 : `${names[at]} (${at + 1})`);
    const on = railWithBranches(capacitors, text('branches'));
    const branched = text('branches') !== '';
    const readings = readAlong(text('along'));
    const model: WalkModel = {
      ...usualWalk,
      noise: (number('noisePercent') ?? 2) / 100,
      driftOhms: number('driftOhms') ?? usualWalk.driftOhms,
    };
    const probabilities = walkProbabilities(on, readings, model);
    const ranked = probabilities
      .map((probability, at) => ({ probability, at }))
      .sort((a, b) => b.probability - a.probability || a.at - b.at);
    const [top] = ranked;
    if (!top) return waitsFor(['capacitors']);
    const name = { capacitor: nameOf(top.at) };
    if (text('takenOff') === 'gone') return { figures: [], findings: [{ code: 'short-gone', tone: 'good', values: name }], needs: [] };
    if (text('takenOff') === 'stays') return { figures: [], findings: [{ code: 'short-not-gone', tone: 'bad', values: name }], needs: [] };
    if (text('takenOff') === 'none-left')
      return { figures: [], findings: [{ code: 'short-no-capacitor', tone: 'bad', values: {} }], needs: [] };
    const figures = [
      { id: 'likeliest', value: top.at + 1, unit: '' as const },
      { id: 'sure', value: top.probability * 100, unit: '%' as const },
    ];
    const fitted = readings.length === 0 ? [] : fittedRow(on, readings, numbersOf(readings), model);
    const plot: PlotAlong = {
      kind: 'along',
      points: fitted.map((one, at) => {
        const read = readings.findLast((reading) => reading.at === at)?.ohms;
        return {
          ...one,
          probability: probabilities[at] ?? 0,
          ...(read === undefined ? {} : { read }),
          ...(branched ? { on: on[at] ?? -1 } : {}),
          ...(names[at] === undefined ? {} : { name: names[at] }),
        };
      }),
    };
    const drawn = readings.length === 0 ? {} : { plot };
    const places = new Set(readings.map(({ at }) => at)).size;
    // The chain of two shorts knows no branches.
    const enough = !branched && places >= readForTwo.least && places >= capacitors * readForTwo.share && capacitors <= readForTwo.most;
    const two = enough ? twoShorts(capacitors, readings, model) : undefined;
    if (two && two.factor > 1) {
      const likeliest = (all: readonly number[]): string | number => nameOf(all.indexOf(Math.max(...all)));
      const values = { first: likeliest(two.first), second: likeliest(two.second) };
      return { figures: [], findings: [{ code: 'short-two', tone: 'bad', values }], needs: [], ...drawn };
    }
    if (top.probability >= stopAt) return { figures, findings: [{ code: 'short-found', tone: 'bad', values: name }], needs: [], ...drawn };
    const next = nextPoint(on, readings, numbersOf(readings), model);
    const others = ranked.slice(1, 4).filter(({ probability }) => probability >= worthNaming);
    const again = readings.some(({ at }) => at === next.at);
    const findings: Finding[] = [
      { code: again ? 'short-read-again' : 'short-read-next', tone: 'doubt', values: { capacitor: nameOf(next.at), at: next.at } },
    ];
    if (branched && readings.length >= readForTwo.least) findings.push({ code: 'short-two-unseen', tone: 'doubt', values: {} });
    if (readings.length > 0 && others.length > 0)
      findings.push({
        code: 'short-others',
        tone: 'doubt',
        values: { list: others.map(({ at, probability }) => `${nameOf(at)} (${Math.round(probability * 100)} %)`).join(', ') },
      });
    return { figures: readings.length === 0 ? [] : figures, findings, needs: [], ...drawn };
  },
};
