import { describe, expect, test } from '@jest/globals';
import { shipped } from '../testing/shipped.ts';
import { checkPack, layoutProbabilitiesByLooks } from './index.ts';

const { pack } = shipped();
const probabilities = (seen: Record<string, string>, possible?: string[]) => layoutProbabilitiesByLooks(pack, seen, possible);
const top = (seen: Record<string, string>): string => Object.entries(probabilities(seen)).sort((a, b) => b[1] - a[1])[0]![0];

describe('the layout by looks', () => {
  test('with nothing seen: as common as the pack says', () => {
    const total = pack.layouts.reduce((sum, { frequency }) => sum + pack.scale.frequency[frequency]!, 0);
    for (const { id, frequency } of pack.layouts) expect(probabilities({})[id]).toBeCloseTo(pack.scale.frequency[frequency]! / total, 12);
  });

  test('told by hand: a heavy glass plate on a set that sits beside few of its kind', () => {
    // P(plate | plasma) is "usually" over its row, for others "rarely" over theirs; Bayes' rule, arithmetic by hand.
    const { scale } = pack;
    const word = (id: string): number => scale.likelihood[id]!;
    const forPlasma = word('usually') / (word('never') + word('rarely') + word('usually'));
    const forOled = word('never') / (word('seldom') + word('usually') + word('never'));
    const forOthers = word('rarely') / (word('usually') + word('seldom') + word('rarely'));
    const weight = (id: string): number =>
      scale.frequency[pack.layouts.find((one) => one.id === id)!.frequency]! *
      (id === 'plasma' ? forPlasma : id === 'oled' ? forOled : forOthers);
    const total = pack.layouts.reduce((sum, { id }) => sum + weight(id), 0);
    expect(probabilities({ front: 'plate' }).plasma).toBeCloseTo(weight('plasma') / total, 12);
  });

  test.each([
    [{ thickness: 'hand', front: 'plate', fans: 'fans' }, 'plasma'],
    [{ thickness: 'card', front: 'gloss' }, 'oled'],
    [{ sockets: 'beside', front: 'film', thickness: 'finger' }, 'one-board'],
    [{ 'through-vents': 'yes', sockets: 'far', front: 'film', thickness: 'finger' }, 'led-tcon'],
  ])('%j leads to %s', (seen, layout) => {
    expect(top(seen)).toBe(layout);
  });

  test('order of looking is free; an answer the pack doesn’t know says nothing; none is ever ruled out', () => {
    expect(probabilities({ front: 'film', fans: 'slits' })).toEqual(probabilities({ fans: 'slits', front: 'film' }));
    expect(probabilities({ front: 'velvet', colour: 'red' })).toEqual(probabilities({}));
    for (const p of Object.values(probabilities({ thickness: 'card', front: 'plate', fans: 'fans', sockets: 'beside' })))
      expect(p).toBeGreaterThan(0);
  });

  test('a family narrows it to the layouts it comes in', () => {
    expect(Object.keys(probabilities({ front: 'plate' }, ['oled', 'led-tcon'])).sort()).toEqual(['led-tcon', 'oled']);
  });

  test('the pack’s check refuses a look with a wrong word, a layout nobody knows, or no row for the others', () => {
    const [look] = pack.looks;
    const spoilt = { ...look!, rows: [{ for: ['no-such'], likelihoods: { card: 'usually', finger: 'usually', hand: 'usually' } }] };
    expect(checkPack({ ...pack, looks: [spoilt] }).map(({ code }) => code)).toEqual(['unknown-id', 'row-sum', 'row-missing-default']);
  });
});
