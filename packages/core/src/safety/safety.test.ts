/** The safety walk on the shipped layouts. Rules: common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readBody, setOnArrival, stateAfter, type Body, type BodyOf, type Entry, type SetState, type Toward } from '../ledger/index.ts';
import { foldCase } from '../diagnosis/index.ts';
import { caseOf, shipped } from '../testing/shipped.ts';
import { chargePoints, isHot, objectionsTo, progressOf, stageOfPlace, standingAt, stillOut, walkTo } from './index.ts';

const compiled = shipped();
const layouts = compiled.pack.layouts.map(({ id }) => id);
const start = Date.parse('2026-03-01T08:00:00Z');

function entry(body: Body, seq: number, minute = seq, by = 'ada', basedOn = seq - 1): Entry {
  return { id: `e${seq}`, seq, at: new Date(start + minute * 60_000).toISOString(), by, basedOn, body };
}
const changed = (change: Partial<BodyOf<'set.changed'>>): BodyOf<'set.changed'> => ({ kind: 'set.changed', v: 3, ...change });
const codes = (change: Partial<BodyOf<'set.changed'>>, state: Partial<SetState> = {}, layout = 'led-tcon'): string[] =>
  objectionsTo(changed(change), { ...setOnArrival, stage: 1, ...state }, compiled, layout).map(({ code }) => code);
const read = (layout: string): Record<string, number> => Object.fromEntries(chargePoints(layout, compiled).map((point) => [point, 3]));

describe('objections', () => {
  const down = { railsDown: true };
  const verified = { railsDown: true, verified: true };
  test.each<[string, Partial<BodyOf<'set.changed'>>, Partial<SetState>, string[]]>([
    ['a ribbon pulled from a plugged set', { pulled: ['harness.panel-left'] }, { plugged: true }, ['moved-live']],
    ['a ribbon pulled with rails up', { pulled: ['harness.panel-left'] }, {}, ['moved-rails-up']],
    ['a ribbon pulled with rails down', { pulled: ['harness.panel-left'] }, down, []],
    ['put back under power', { restored: ['harness.picture'] }, { plugged: true, out: ['harness.picture'] }, ['moved-live']],
    ['the light plug with rails down only', { pulled: ['harness.light'] }, down, ['moved-unverified']],
    ['the light plug, verified', { pulled: ['harness.light'] }, verified, []],
    ['signal cables outside, plugged in', { pulled: ['signal-cables'] }, { plugged: true }, []],
    ['unplugged, looked and pulled in one', { plugged: false, railsDown: true, pulled: ['keys'] }, { plugged: true }, []],
    ['a bridge under power', { bridged: [['standby', 'ps-on']] }, { plugged: true }, ['moved-live', 'moved-live']],
    ['tape with rails up', { taped: ['clock-lines'] }, {}, ['moved-rails-up']],
    ['the cover off while plugged in', { stage: 'panel-open' }, { plugged: true }, ['opened-plugged']],
    ['the glass lifted on a look alone', { stage: 'panel-open' }, down, ['opened-unverified']],
    ['the glass lifted, verified', { stage: 'panel-open' }, verified, []],
    ['strap on, only down', { strap: true }, down, ['strap-unverified']],
    ['strap on, verified', { strap: true }, verified, []],
    ['strap on while plugged in', { strap: true }, { plugged: true }, ['strap-plugged']],
    ['plugged in with the strap on', { plugged: true }, { ...verified, strap: true }, ['strap-plugged']],
    ['strap off, then in', { plugged: true, strap: false }, { ...verified, strap: true }, []],
    ['rails called down while plugged in', down, { plugged: true }, ['down-plugged']],
    ['verified without a reading', { verified: true }, {}, ['not-read-everywhere', 'not-read-everywhere']],
    ['verified without the light plug', { verified: true, volts: { bulk: 3 } }, {}, ['not-read-everywhere']],
    ['verified at 60 V', { verified: true, volts: { bulk: 60, 'led-plug': 0 } }, {}, ['over-the-limit']],
    ['verified at 59 V', { verified: true, volts: { bulk: 59, 'led-plug': 59 } }, {}, []],
    ['an open string’s charge', { verified: true, volts: { bulk: 2, 'led-plug': 110 } }, {}, ['over-the-limit']],
    ['a negative charge counts the same', { verified: true, volts: { bulk: -75, 'led-plug': 0 } }, {}, ['over-the-limit']],
    ['plugged in with a plug out and no list', { plugged: true }, { ...down, out: ['keys'] }, ['list-not-shown']],
    ['plugged in with a plug out, listed', { plugged: true, stillOut: ['keys'] }, { ...down, out: ['keys'] }, []],
    [
      'a list that leaves out the bridge',
      { plugged: true, stillOut: ['keys'] },
      { ...down, out: ['keys'], bridged: [['ps-on', 'standby']] },
      ['list-not-shown'],
    ],
  ])('%s', (_, change, state, expected) => {
    expect(codes(change, state)).toEqual(expected);
  });

  test('on a plasma every charge is read: main capacitor, sustain, scan, address', () => {
    const low = { bulk: 2, sustain: 12, 'scan-rail': 4, 'address-rail': 1 };
    expect([...chargePoints('plasma', compiled)].sort()).toEqual(Object.keys(low).sort());
    expect(codes({ verified: true, volts: { bulk: 2 } }, {}, 'plasma')).toEqual(Array(3).fill('not-read-everywhere'));
    expect(codes({ verified: true, volts: low }, {}, 'plasma')).toEqual([]);
    for (const point of Object.keys(low))
      expect(codes({ verified: true, volts: { ...low, [point]: 190 } }, {}, 'plasma')).toEqual(['over-the-limit']);
  });

  // What kills there is on every plug: no light walk inside.
  test.each(['plasma', 'one-board'])('%s: no plug inside moves on a look alone', (layout) => {
    for (const id of compiled.layouts.get(layout)!.assemblies.filter((one) => stageOfPlace(one, layout, compiled) > 0)) {
      expect([id, codes({ pulled: [id] }, down, layout)]).toEqual([id, ['moved-unverified']]);
      expect([id, codes({ pulled: [id] }, verified, layout)]).toEqual([id, []]);
    }
  });

  test('a layout’s own cautions stand with every step inside it, and while the layout is open with those of all likely ones', () => {
    const inside = (layout: unknown) => {
      const { next, leftOut } = foldCase(caseOf(['starts-then-stops'], [], { layout }), compiled);
      return [...next, ...leftOut.map(({ step }) => step)].filter(({ stage }) => stage !== 'closed');
    };
    for (const [layout, caution] of [
      ['plasma', 'plasma-volts'],
      ['one-board', 'shared-board'],
      [{ probabilities: { 'led-tcon': 0.7, 'one-board': 0.3 } }, 'shared-board'],
    ] as const) {
      const steps = inside(layout);
      expect(steps.length).toBeGreaterThan(5);
      for (const step of steps) expect([step.id, step.cautions.includes(caution)]).toEqual([step.id, true]);
    }
    expect(inside('led-tcon').some(({ cautions }) => cautions.includes('shared-board'))).toBe(false);
  });

  test.each(layouts)('%s names where a charge is read', (layout) => {
    expect(chargePoints(layout, compiled)).toContain('bulk');
    expect(compiled.layouts.get(layout)?.points.bulk).toBeDefined();
  });
});

describe('what a heavy walk asks for', () => {
  const heavy = layouts.flatMap((layout) =>
    [
      ...(compiled.testsOf.get(layout) ?? []).flatMap((one) =>
        (one.of ? compiled.objectsOf(one, layout) : [undefined]).map((of) => ({
          kind: 'test' as const,
          id: one.id,
          ...(of === undefined ? {} : { of }),
        })),
      ),
      ...(compiled.repairsOf.get(layout) ?? []).map(({ id }) => ({ kind: 'repair' as const, id })),
    ].map((target) => ({ layout, target })),
  );

  test('the strap on after the reading and before the first plug, and off before the set is plugged in', () => {
    let walked = 0;
    for (const { layout, target } of heavy) {
      const acts = walkTo(target, { ...setOnArrival, plugged: true, stage: 1 }, compiled, layout)!.moves.flatMap((move) =>
        move.acts.map(({ kind }) => kind),
      );
      const [read, on, off, power] = [
        acts.indexOf('verify'),
        acts.indexOf('strap-on'),
        acts.indexOf('strap-off'),
        acts.lastIndexOf('plug-in'),
      ];
      const move = acts.findIndex((kind, at) => at > read && (kind === 'pull' || kind === 'restore' || kind === 'bridge'));
      if (read < 0 || move < 0 || acts.slice(read, move).includes('plug-in')) continue;
      expect([layout, target.id, on > read && on < move]).toEqual([layout, target.id, true]);
      if (power > on) expect([layout, target.id, off > on && off < power]).toEqual([layout, target.id, true]);
      walked += 1;
    }
    expect(walked).toBeGreaterThan(20);
  });

  test('the light plug read wherever hands go to strips, driver or the light’s own plug', () => {
    for (const { layout, target } of heavy) {
      const points = compiled.layouts.get(layout)!.points;
      if (!points['led-plug'] || !/strip|driver|cut[.]light|renew[.]light|replace[.](?:power|combo)/.test(target.id)) continue;
      const acts = walkTo(target, { ...setOnArrival, plugged: true, stage: 1 }, compiled, layout)!.moves.flatMap((move) => move.acts);
      const verify = acts.find((act) => act.kind === 'verify');
      if (acts.some(({ kind }) => kind === 'pull' || kind === 'restore') || target.kind === 'repair')
        expect([layout, target.id, verify?.kind === 'verify' && verify.points.includes('led-plug')]).toEqual([layout, target.id, true]);
    }
  });

  test('a reading above the limit never counts as safe, wherever it was read', () => {
    for (const [volts, safe] of [
      [{ bulk: 3, 'led-plug': 3 }, true],
      [{ bulk: 3, 'led-plug': 61 }, false],
      [{ bulk: 60, 'led-plug': 0 }, false],
      [{ bulk: -61, 'led-plug': 0 }, false],
    ] as const) {
      const state = stateAfter(
        { ...setOnArrival, stage: 1 },
        entry(changed({ plugged: false, verified: true, volts }), 1),
        compiled,
        'led-tcon',
      );
      expect([volts, standingAt(state, start + 120_000).verified]).toEqual([volts, safe]);
    }
  });
});

describe('down and verified lapse', () => {
  const verified = changed({ plugged: false, verified: true, volts: { bulk: 4, 'led-plug': 0 } });
  const after = (entries: readonly Entry[]): SetState =>
    entries.reduce((state, one) => stateAfter(state, one, compiled, 'led-tcon'), { ...setOnArrival, stage: 1 });
  test('at power-up', () => {
    const state = after([entry(verified, 1), entry(changed({ plugged: true }), 2), entry(changed({ plugged: false }), 3)]);
    expect(standingAt(state, start + 4 * 60_000)).toMatchObject({ railsDown: false, verified: false, lapsed: false });
  });
  test('after the shop’s time', () => {
    const state = after([entry(verified, 1)]);
    expect(standingAt(state, start + 31 * 60_000, 30)).toMatchObject({ verified: true, verifiedFor: 30, lapsed: false });
    expect(standingAt(state, start + 32 * 60_000, 30)).toMatchObject({ railsDown: false, verified: false, lapsed: true });
  });
  test('when somebody writes who hadn’t seen it, and not when they had, or when it is only a note', () => {
    const theirs = (body: Body, basedOn: number): SetState => after([entry(verified, 1), entry(body, 2, 2, 'bo', basedOn)]);
    const pull = changed({ pulled: ['keys'] });
    expect(theirs(pull, 0)).toMatchObject({ verified: false, railsDown: false, measured: undefined });
    expect(theirs(pull, 1)).toMatchObject({ verified: true, out: ['keys'] });
    expect(theirs({ kind: 'note.added', v: 1, text: 'x' }, 0)).toMatchObject({ verified: true });
    expect(after([entry(verified, 1), entry(pull, 2, 2, 'ada', 0)])).toMatchObject({ verified: true });
  });
  test('a step done as written leaves rails down for the plan, and nothing to rely on', () => {
    const state = after([entry({ kind: 'test.answered', v: 2, test: 'cut.picture', outcome: 'unchanged', sure: 'sure' }, 1)]);
    expect(state).toMatchObject({ plugged: false, railsDown: true });
    expect(standingAt(state, start + 60_000)).toMatchObject({ railsDown: false, verified: false });
  });
  test('a step told afterwards never unplugs a set that somebody recorded as plugged in', () => {
    const told: Body = { kind: 'test.answered', v: 2, test: 'cut.picture', outcome: 'unchanged', sure: 'sure' };
    expect(after([entry(changed({ plugged: true }), 1), entry(told, 2)])).toMatchObject({ plugged: true, railsDown: false });
    expect(after([entry(told, 1)])).toMatchObject({ plugged: false });
  });
  test('overridden leaves nothing to rely on at all', () => {
    const state = after([
      entry(verified, 1),
      entry({ kind: 'test.answered', v: 2, test: 'cut.picture', outcome: 'unchanged', sure: 'sure', anyway: true }, 2),
    ]);
    expect(state).toMatchObject({ railsDown: false, verified: false });
  });
});

/** Every step of a layout, as a target. */
const targetsOf = (layout: string): Toward[] => [
  ...(compiled.testsOf.get(layout) ?? []).flatMap((one): Toward[] =>
    one.of ? compiled.objectsOf(one, layout).map((of) => ({ kind: 'test', id: one.id, of })) : [{ kind: 'test', id: one.id }],
  ),
  ...(compiled.repairsOf.get(layout) ?? []).map(({ id }): Toward => ({ kind: 'repair', id })),
];
const anyState = (layout: string): fc.Arbitrary<SetState> => {
  const inside = compiled.layouts.get(layout)!.assemblies.filter((id) => stageOfPlace(id, layout, compiled) === 1);
  return fc
    .record({
      stage: fc.integer({ min: 0, max: 2 }),
      plugged: fc.boolean(),
      looked: fc.boolean(),
      measured: fc.boolean(),
      strap: fc.boolean(),
      out: fc.subarray(inside, { maxLength: 3 }),
      bridged: fc.constantFrom<[string, string][]>([], [['standby', 'ps-on']]),
      taped: fc.constantFrom<string[]>([], ['clock-lines']),
      lifted: fc.constantFrom<SetState['lifted']>([], [{ name: 'C412', what: 'part', on: 'tcon' }]),
    })
    .map(({ stage, plugged, looked, measured, strap, out, bridged, taped, lifted }): SetState => {
      const known = { at: new Date(start).toISOString(), seq: 1, by: 'ada' };
      const verified = measured && !plugged;
      return {
        stage,
        plugged,
        railsDown: (looked || measured) && !plugged,
        verified,
        strap: strap && verified,
        out: stage === 0 ? [] : out,
        bridged: stage === 0 ? [] : bridged,
        taped: stage === 0 ? [] : taped,
        lifted: stage === 0 ? [] : lifted,
        lookedDown: (looked || measured) && !plugged ? known : undefined,
        measured: verified ? { ...known, volts: read(layout) } : undefined,
      };
    });
};
/** A move as a technician confirms it: with the volts read, where some are asked for. */
const confirmed = (layout: string, change: BodyOf<'set.changed'>): BodyOf<'set.changed'> =>
  change.verified ? { ...change, volts: read(layout) } : change;

describe.each(layouts)('walks on %s', (layout) => {
  const targets = targetsOf(layout);
  test('from any state to any step: no move meets an objection, and what is out at the end is the step’s own', () => {
    expect(targets.length).toBeGreaterThan(40);
    fc.assert(
      fc.property(anyState(layout), fc.constantFrom(...targets), (from, target) => {
        const walk = walkTo(target, standingAt(from, start), compiled, layout)!;
        let state = from;
        for (const [index, { change, acts }] of walk.moves.entries()) {
          const body = confirmed(layout, change);
          expect(objectionsTo(body, standingAt(state, start), compiled, layout)).toEqual([]);
          const plugIn = acts.find((act) => act.kind === 'plug-in');
          state = stateAfter(state, entry(body, index + 2, 0), compiled, layout);
          if (plugIn) expect(plugIn.stillOut).toEqual(stillOut(state));
        }
        if (walk.harmless) return;
        const definition = target.kind === 'test' ? compiled.tests.get(target.id)! : undefined;
        const own = definition && compiled.procedure(definition, layout, target.of);
        expect(
          stillOut(state).filter(
            (id) =>
              !stillOut({ out: own?.pulled ?? [], bridged: own?.bridged ?? [], taped: own?.taped ?? [], lifted: state.lifted }).includes(
                id,
              ),
          ),
        ).toEqual([]);
        expect(state.plugged).toBe(walk.endsIn === 'plugged');
      }),
      { numRuns: 300, seed: 4711 },
    );
  });

  test('hot places are measured first, cold cuts never ask for a measurement', () => {
    for (const target of targets) {
      const walk = walkTo(target, { ...setOnArrival, plugged: true, stage: 1 }, compiled, layout)!;
      const acts = walk.moves.flatMap((move) => move.acts);
      const pulls = acts.flatMap((act) => (act.kind === 'pull' ? [act.id] : []));
      const measured = acts.some((act) => act.kind === 'verify');
      if (pulls.some((id) => isHot(id, layout, compiled))) expect(measured).toBe(true);
      const light = target.id.startsWith('cut.panel') || target.id === 'cut.picture' || target.id === 'cut.power-main';
      // Cold-side cuts are walked lightly, or the heavy walk would be clicked through; where nothing inside is cold, none is.
      if (light) expect([target.id, measured]).toEqual([target.id, compiled.layouts.get(layout)!.hotInside === true && pulls.length > 0]);
    }
  });
});

describe('progress is told from the ledger', () => {
  const target: Toward = { kind: 'test', id: 'cut.picture' };
  const opened = entry(changed({ stage: 'back-off', plugged: true }), 1);
  const at = (minute: number): number => start + minute * 60_000;
  const progress = (entries: readonly Entry[], now = at(20)) => progressOf(target, entries, compiled, 'led-tcon', now)!;

  test('move by move, whatever note comes between; then the step can be answered', () => {
    const entries = [opened];
    const kinds: string[] = [];
    for (let next = progress(entries).next; next; next = progress(entries).next) {
      kinds.push(next.kind);
      entries.push(entry(next.change, entries.length + 1));
      entries.push(entry({ kind: 'note.added', v: 1, text: 'screw missing' }, entries.length + 1));
    }
    expect(kinds).toEqual(['down', 'change', 'power']);
    expect(progress(entries)).toMatchObject({ done: 3, next: undefined, standing: { plugged: true, out: ['harness.picture'] } });
    // The answer leaves the plug out, and the next step's walk puts it back first.
    const answered = [
      ...entries,
      entry({ kind: 'test.answered', v: 2, test: 'cut.picture', outcome: 'unchanged', sure: 'sure', walked: true }, 20),
    ];
    const other = progressOf({ kind: 'test', id: 'rail.standby' }, answered, compiled, 'led-tcon', at(21))!;
    expect(other.walk.moves.flatMap((move) => move.acts.map((act) => act.kind))).toEqual(['unplug', 'rails-down', 'restore', 'plug-in']);
  });

  test('a forgotten plug, bridge or tape: void, and says so', () => {
    const forgotten = [
      entry(changed({ pulled: ['keys'], bridged: [['standby', 'ps-on']], taped: ['clock-lines'], anyway: true }), 1),
      entry({ kind: 'test.answered', v: 2, test: 'cut.picture', outcome: 'unchanged', sure: 'sure', anyway: true }, 2),
    ];
    const { unused } = foldCase({ ...caseOf(['restart-loop']), entries: forgotten }, compiled);
    expect(unused).toContainEqual({ entry: 'e2', code: 'plug-left-out', id: 'bridge ps-on standby, keys, tape clock-lines' });
  });

  test('pulled under a lapsed look: the walk begins again with a look', () => {
    const begun = [opened, entry(progress([opened]).next!.change, 2)];
    expect(progress(begun, at(10))).toMatchObject({ done: 1, next: { kind: 'change' } });
    const later = progress(begun, at(60));
    expect(later).toMatchObject({ done: 0, next: { kind: 'down', acts: [{ kind: 'rails-down' }] } });
    const again = [...begun, entry(later.next!.change, 3, 60)];
    expect(progress(again, at(61))).toMatchObject({ done: 1, next: { kind: 'change' } });
  });

  test('somebody else plugs in meanwhile: back to unplugging', () => {
    const begun = [opened, entry(progress([opened]).next!.change, 2), entry(changed({ plugged: true }), 3, 3, 'bo')];
    expect(progress(begun, at(5)).next).toMatchObject({ kind: 'down' });
  });
});

test('over random legal intents nothing is pulled live, and what is listed at power-up is pulled minus restored', () => {
  const ids = ['harness.picture', 'harness.panel-left', 'keys', 'speakers', 'harness.light'];
  const intent = fc.oneof(
    fc.constant(changed({ plugged: false })),
    fc.constant(changed({ plugged: true })),
    fc.constant(changed({ railsDown: true })),
    fc.constant(changed({ verified: true, volts: { bulk: 2 } })),
    fc.constant(changed({ strap: true })),
    fc.constant(changed({ strap: false })),
    fc.subarray(ids, { minLength: 1 }).map((pulled) => changed({ pulled })),
    fc.subarray(ids, { minLength: 1 }).map((restored) => changed({ restored })),
  );
  let pulledEver = 0;
  let plugged = 0;
  fc.assert(
    fc.property(fc.array(intent, { minLength: 40, maxLength: 80 }), (intents) => {
      let state: SetState = { ...setOnArrival, stage: 1 };
      // Kept by hand beside the state under test.
      const out = new Set<string>();
      let power = false;
      let seq = 1;
      for (const wanted of intents) {
        const body = wanted.plugged ? { ...wanted, stillOut: [...out].sort() } : wanted;
        if (objectionsTo(body, standingAt(state, start), compiled, 'led-tcon').length > 0) continue;
        if (body.pulled || body.restored) expect(power).toBe(false);
        for (const id of body.pulled ?? []) out.add(id);
        for (const id of body.restored ?? []) out.delete(id);
        pulledEver += body.pulled?.length ?? 0;
        if (body.plugged) plugged += 1;
        power = body.plugged ?? power;
        state = stateAfter(state, entry(body, (seq += 1), 0), compiled, 'led-tcon');
        expect(stillOut(state)).toEqual([...out].sort());
        if (power) expect(state.strap).toBe(false);
      }
    }),
    { numRuns: 400, seed: 99 },
  );
  expect(pulledEver).toBeGreaterThan(300);
  expect(plugged).toBeGreaterThan(300);
});

describe('what needs no walk', () => {
  const walk = (state: Partial<SetState>, target: Toward = { kind: 'test', id: 'torch' }) =>
    walkTo(target, { ...setOnArrival, ...state }, compiled, 'led-tcon')!;
  test('a step outside a closed set, and no other', () => {
    expect(walk({}).harmless).toBe(true);
    expect(walk({ stage: 1 }).harmless).toBe(false);
    expect(walk({ strap: true }).harmless).toBe(false);
    expect(walk({ out: ['harness.picture'] }).harmless).toBe(false);
    expect(walk({}, { kind: 'test', id: 'rail.standby' }).harmless).toBe(false);
  });
  test('each move’s entry is one that the ledger reads as it is', () => {
    const { moves } = walk({ stage: 1, plugged: true }, { kind: 'test', id: 'cut.light' });
    expect(moves.length).toBeGreaterThan(3);
    for (const { change } of moves) expect(readBody(change, 'move')).toEqual({ body: change });
  });
});

test('a test that was done with nothing pulled says nothing of the rails', () => {
  const after = (id: string, outcome: string): SetState =>
    stateAfter(
      { ...setOnArrival, stage: 1, plugged: false },
      entry({ kind: 'test.answered', v: 2, test: id, outcome, sure: 'sure' }, 1),
      compiled,
      'led-tcon',
    );
  expect(after('look.glass', 'clean').railsDown).toBe(false);
  expect(after('cut.picture', 'unchanged').railsDown).toBe(true);
});
