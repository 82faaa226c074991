/** Every symptom of every fault leads somewhere: played truthfully on the pack and on the simulated set. */
import { describe, expect, test } from '@jest/globals';
import { believe, compilePack, defaultSettings, foldCase, type CaseInput } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { SimulatedSet } from '../set/index.ts';
import { atOnce, fixedList, play, simulatedOpponent, type Play } from './index.ts';

const compiled = compilePack(await readPackFolder(new URL('../../../../knowledge', import.meta.url).pathname));
const layouts = compiled.pack.layouts.map(({ id }) => id);

function played(layoutId: string, faults: readonly string[], seed: number, asOneFault = false): Play | undefined {
  const family = compiled.pack.families.find((one) => one.layouts.includes(layoutId));
  const set = new SimulatedSet({ layout: compiled.layouts.get(layoutId)!, family, faults, seed });
  if (set.complaint() === undefined) return undefined;
  return play({
    opponent: simulatedOpponent(set, 0),
    way: atOnce,
    compiled,
    set: { layout: layoutId, ...(family ? { family: family.id } : {}) },
    settings: defaultSettings,
    seed,
    asOneFault,
  });
}

describe.each(layouts.map((id, index) => [id, index] as const))('%s', (layoutId, place) => {
  test('every second fault, by turns, however it shows, ends cured or given up at its price within 40 steps', () => {
    const complaints = new Set<string>();
    let cured = 0;
    let ended = 0;
    for (const [index, { id }] of compiled.faultsOf.get(layoutId)!.entries()) {
      // Half of them on each layout, the other half on the next: all of them on every layout is for bench/.
      if ((index + place) % 2 > 0) continue;
      for (const seed of [11]) {
        const game = played(layoutId, [id], seed);
        if (!game) continue;
        const [first] = game.entries;
        if (first?.body.kind === 'symptom.reported') complaints.add(first.body.symptoms[0]!);
        const steps = game.entries.filter(({ body }) => body.kind === 'test.answered' || body.kind === 'repair.done').length;
        expect({ id, ending: game.ending, within: steps <= 40 }).toEqual({
          id,
          ending: expect.stringMatching(/cured|given-up/) as unknown,
          within: true,
        });
        ended += 1;
        if (game.ending === 'cured') cured += 1;
      }
    }
    expect(complaints.size).toBeGreaterThan(8);
    // The rest are panels, which cost more than a new set.
    expect(cured / ended).toBeGreaterThan(0.7);
  });
});

test('a change of symptom after a repair starts the case anew, keeping what still holds', () => {
  const input = (bodies: readonly Record<string, unknown>[]): CaseInput => ({
    set: { layout: 'led-tcon' },
    settings: defaultSettings,
    entries: bodies.map((body, index) => ({
      id: `e${index}`,
      seq: index + 1,
      at: '2026-01-01T00:00:00Z',
      by: 'a',
      basedOn: 0,
      body: { v: 1, ...body } as never,
    })),
  });
  const answered = (name: string, outcome: string) => ({ kind: 'test.answered', test: name, outcome, sure: 'sure' });
  const before = [
    { kind: 'symptom.reported', symptoms: ['dead'] },
    answered('rail.standby', 'absent'),
    answered('look.glass', 'clean'),
    { kind: 'repair.done', repair: 'replace.power', result: 'changed' },
    { kind: 'symptom.reported', symptoms: ['half-picture'] },
  ];
  const belief = believe(input(before), compiled);
  const fold = foldCase(input(before), compiled);
  // The dead standby rail was the first fault's; the whole glass still clears the crack.
  expect([...belief.interpretation.symptoms]).toEqual(['half-picture']);
  expect(fold.unused).toContainEqual({ entry: 'e1', code: 'earlier-fault' });
  expect(fold.doubts).toContainEqual(expect.objectContaining({ code: 'symptom-changed' }));
  const probability = (one: typeof fold, id: string): number => one.faults.find((fault) => fault.id === id)!.probability;
  const plain = foldCase(input([{ kind: 'symptom.reported', symptoms: ['half-picture'] }]), compiled);
  expect(probability(fold, 'panel.glass-cracked')).toBeLessThan(probability(plain, 'panel.glass-cracked') / 5);
  // What was just handled comes first.
  expect(probability(fold, 'harness.panel-left.loose')).toBeGreaterThan(2 * probability(plain, 'harness.panel-left.loose'));
  // What was replaced is not likely to be what is wrong now.
  expect(fold.assemblies.find(({ id }) => id === 'power')!.probability).toBeLessThan(0.01);
});

test('with two faults, starting anew costs less than pretending there is one', () => {
  let anew = 0;
  let single = 0;
  let pairs = 0;
  const faults = [
    'power.standby-dead',
    'tcon.bias-dead',
    'strips.led-open',
    'main.no-ps-on',
    'speakers.open',
    'harness.panel-left.loose',
    'main.rail-missing',
  ];
  faults.forEach((first, a) => {
    faults.slice(a + 1).forEach((second, b) => {
      const one = played('led-tcon', [first, second], 100 + 10 * a + b);
      if (!one?.entries.some(({ body }) => body.kind === 'repair.done' && body.result === 'changed')) return;
      anew += one.costMinor;
      single += played('led-tcon', [first, second], 100 + 10 * a + b, true)!.costMinor;
      pairs += 1;
    });
  });
  expect(pairs).toBeGreaterThan(8);
  expect(anew).toBeLessThan(single);
});

test('the fixed list is the layout’s, in its order, and ends with a part like any other way', () => {
  const set = new SimulatedSet({ layout: compiled.layouts.get('led-tcon')!, faults: ['tcon.bias-dead'], seed: 5 });
  const game = play({
    opponent: simulatedOpponent(set, 0),
    way: fixedList(),
    compiled,
    set: { layout: 'led-tcon' },
    settings: defaultSettings,
    seed: 5,
  });
  const order = compiled.layouts.get('led-tcon')!.fixedList.map(({ test: id, of }) => `${id}|${of ?? ''}`);
  const done = game.entries.flatMap(({ body }) => (body.kind === 'test.answered' ? [order.indexOf(`${body.test}|${body.of ?? ''}`)] : []));
  expect(done.length).toBeGreaterThan(3);
  expect(done).not.toContain(-1);
  expect([...done].sort((a, b) => a - b)).toEqual(done);
  expect(game.ending).toBe('cured');
});
