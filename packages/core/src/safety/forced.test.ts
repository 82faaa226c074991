/** Driving a control line from outside. Rules: common practice, no source; resistor by Ohm's law. */
import { describe, expect, test } from '@jest/globals';
import { foldCase } from '../diagnosis/index.ts';
import { compilePack, forcingOf, type CompiledPack } from '../knowledge/index.ts';
import { setOnArrival, stateAfter, type Entry, type SetState } from '../ledger/index.ts';
import { caseOf, shipped } from '../testing/shipped.ts';
import { leftBeforeClosing, stillOut, walkTo } from './index.ts';

const compiled = shipped();
const opened: SetState = { ...setOnArrival, plugged: true, stage: 1 };
const forcing = compiled.pack.layouts.flatMap((layout) =>
  (compiled.testsOf.get(layout.id) ?? [])
    .filter((one) => one.do.some((step) => 'force' in step))
    .map((one) => [layout.id, one.id] as const),
);
const actsTo = (id: string, layout: string, family?: string) =>
  walkTo({ kind: 'test', id }, opened, compiled, layout, compiled.families.get(family ?? ''))!.moves.flatMap(({ acts }) => acts);
const bridgesTo = (id: string, layout: string, family?: string) =>
  actsTo(id, layout, family).flatMap((act) => (act.kind === 'bridge' ? [act] : []));

describe('a forced line', () => {
  test('some tests force lines, on most layouts', () => expect(forcing.length).toBeGreaterThan(12));

  test.each(forcing)('%s, %s: never against main’s own output', (layout, id) => {
    const acts = actsTo(id, layout);
    const bridges = bridgesTo(id, layout);
    expect(bridges.length).toBeGreaterThan(0);
    for (const bridge of bridges) {
      const before = acts.slice(0, acts.indexOf(bridge));
      const parted = before.some(
        (act) => (act.kind === 'pull' && act.id === 'harness.power-main') || (act.kind === 'tape' && act.id === bridge.to),
      );
      expect([bridge.to, parted]).toEqual([bridge.to, true]);
    }
  });

  test.each(forcing)('%s, %s: all its bridges, and BL_ON’s DIM, on the list before power and on the closing list', (layout, id) => {
    const walk = walkTo({ kind: 'test', id }, opened, compiled, layout)!;
    const lines = bridgesTo(id, layout).map(({ to }) => to);
    if (lines.includes('bl-on')) expect(lines).toContain('dim');
    let state: SetState = opened;
    walk.moves.forEach(({ change }, index) => {
      const entry: Entry = { id: `e${index}`, seq: index + 1, at: '2026-03-01T08:00:00Z', by: 'ada', basedOn: index, body: change };
      const next = stateAfter(state, entry, compiled, layout);
      if (change.plugged)
        for (const line of lines) expect([line, change.stillOut?.some((one) => one.includes(line))]).toEqual([line, true]);
      state = next;
    });
    const left = leftBeforeClosing({ outcome: 'repaired' }, state);
    expect(left).toEqual(stillOut(state));
    for (const line of lines) expect(left.some((one) => one.startsWith('bridge') && one.includes(line))).toBe(true);
  });

  // 3 mA: 5.2 V over 1.8 kilohm is 2.9 mA; 12.1 V over 3.9 kilohm is 3.1 mA, where 1 kilohm would be 12 mA.
  test.each([
    ['led-tcon', 'quorvane.qk3', 'standby', 1800],
    // 12 V on an input of which nothing is known: from 3.3 V instead, 1.2 kilohm is 2.8 mA.
    ['led-tcon-on-main', 'drevaxa.nx', 'source-3v3', 1200],
    ['separate-driver', 'vellimar.k1', 'source-3v3', 1200],
    ['separate-driver', 'norrask.d20', 'chassis', 1800],
    ['led-tcon-on-panel', 'imbrelle.s4', 'chassis', 1200],
  ])('%s, %s: from the %s through %d ohms, by its polarity and its own standby rail', (layout, family, from, ohms) => {
    expect(bridgesTo('forced-start', layout, family)).toMatchObject([{ from, to: 'ps-on', ohms }]);
  });
  test('polarity not known: both ways are shown, and the line was read first', () => {
    expect(bridgesTo('forced-start', 'led-tcon')).toMatchObject([{ from: 'standby', level: 'unknown', ohms: 1800 }]);
  });
  test('standby rail not known: a 3.3 V source for one that reads above what an input stands', () => {
    expect(bridgesTo('forced-start', 'led-tcon')).toMatchObject([{ above: { from: 'source-3v3', ohms: 1200 } }]);
    expect(bridgesTo('forced-start', 'led-tcon', 'quorvane.qk3')[0]).not.toHaveProperty('above');
  });
  test.each([
    [5.5, {}, 'standby', 1800],
    [5.6, {}, 'source-3v3', 1200],
    [12.1, { 'ps-on.takes-standby': 'yes' }, 'standby', 3900],
  ])('a standby rail of %d V, %p: from %s', (volts, traits, from, ohms) => {
    const layout = compiled.layouts.get('led-tcon')!;
    const family = structuredClone(compiled.families.get('quorvane.qk3')!);
    family.rails.find(({ point }) => point === 'standby')!.nominalVolts = volts;
    Object.assign(family.traits, traits);
    expect(forcingOf('ps-on', layout, family)).toMatchObject({ from, ohms });
  });

  test('forcing charges the main capacitor again: what was measured before holds no more', () => {
    let state: SetState = { ...opened, plugged: false, railsDown: true, verified: true };
    const { moves } = walkTo({ kind: 'test', id: 'forced-start' }, state, compiled, 'led-tcon')!;
    moves.forEach(({ change }, index) => {
      state = stateAfter(
        state,
        { id: `e${index}`, seq: index + 1, at: '2026-03-01T08:00:00Z', by: 'a', basedOn: index, body: change },
        compiled,
        'led-tcon',
      );
    });
    expect([state.plugged, state.verified, state.railsDown]).toEqual([true, false, false]);
  });
});

describe('when a forced start is offered', () => {
  const codeOf = (answers: string[], set: Record<string, unknown>, pack: CompiledPack = compiled) => {
    const { next, leftOut } = foldCase(caseOf(['standby-no-start'], answers, set), pack);
    return next.some(({ id }) => id === 'forced-start') ? 'offered' : leftOut.find(({ step }) => step.id === 'forced-start')?.code;
  };
  test.each([
    [[], 'reading-first'],
    [['ps-on=cant-tell'], 'reading-first'],
    [['ps-on=stays'], 'offered'],
    [['ps-on=moves'], 'offered'],
  ])('after %p: %s', (answers, expected) => expect(codeOf(answers, { layout: 'led-tcon' })).toBe(expected));

  test('a supply that runs as soon as it is plugged in has nothing to force', () => {
    const pack = structuredClone(compiled.pack);
    const family = pack.families.find(({ id }) => id === 'quorvane.qk3')!;
    const set = { layout: 'led-tcon', family: family.id };
    expect(codeOf(['ps-on=stays'], set, compilePack(pack))).toBe('offered');
    family.traits['supply.always-on'] = 'yes';
    expect(codeOf(['ps-on=stays'], set, compilePack(pack))).toBe('could-not-change');
  });
});
