import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped, type Told } from '../../testing/shipped.ts';
import { believe, cardOf, entropyBits, expectedInformation, foldCase, isLongShot } from '../index.ts';

describe('the step that tells most per minute', () => {
  test('information is the mean fall of entropy over the answers, each weighed by its chance', () => {
    const input = caseOf(['restart-loop']);
    const belief = believe(input, shipped());
    const step = shipped().tests.get('rail.main')!;
    const { bits, would } = expectedInformation(belief, shipped(), step, undefined);
    expect(would.reduce((sum, one) => sum + one.probability, 0)).toBeCloseTo(1, 9);
    const before = entropyBits([...belief.assemblies.values()]);
    const after = would.reduce((sum, one) => {
      const told = believe(caseOf(['restart-loop'], [`rail.main=${one.outcome}`]), shipped());
      return sum + one.probability * entropyBits([...told.assemblies.values()]);
    }, 0);
    expect(bits).toBeCloseTo(before - after, 9);
  });

  test('a preview says what the answer then does', () => {
    const { next } = foldCase(caseOf(['sound-dark'], [], { family: 'quorvane.qk3' }), shipped());
    const step = next.find((one) => one.id === 'cut.power-main')!;
    for (const { outcome, top } of step.would) {
      const then = foldCase(caseOf(['sound-dark'], [`cut.power-main=${outcome}`], { family: 'quorvane.qk3' }), shipped());
      expect(then.assemblies[0]?.id).toBe(top.id);
      expect(then.assemblies[0]?.probability).toBeCloseTo(top.probability, 9);
    }
  });

  test('opening the back is paid once: inside steps get cheaper after the first', () => {
    const minutes = (told: string[]): number =>
      foldCase(caseOf(['standby-no-start'], told), shipped(), 'information').next.find((one) => one.id === 'ps-on')!.minutes;
    expect(minutes([])).toBeGreaterThan(minutes(['rail.standby=in-range']) + 7);
  });

  test('a step that cannot be done with the plug in counts the unplugging and the wait for the rails', () => {
    const wait = (told: string[]): number =>
      foldCase(caseOf(['restart-loop'], told), shipped(), 'information').next.find((one) => one.id === 'reseat')!.waitMinutes;
    expect(wait(['rail.standby=in-range'])).toBeGreaterThanOrEqual(2);
  });

  test('cost is hands-on minutes at the rate and waits at their share', () => {
    const input = {
      ...caseOf(['restart-loop']),
      settings: {
        rateMinorPerHour: 6000,
        waitShare: 0.5,
        currency: 'EUR',
        wrongPartMinor: 0,
        wrongPartShare: 0,
        hazardMinor: 0,
        newSetMinor: 42_000,
        orderFreeMinor: 0,
      },
    };
    for (const step of foldCase(input, shipped()).next.filter((one) => one.kind === 'test')) {
      expect(step.cost).toEqual({ amountMinor: Math.round((step.minutes + 0.5 * step.waitMinutes) * 100), currency: 'EUR' });
    }
  });

  test('what a repair cures with is told in every order, and under a quarter it is a long shot', () => {
    const { pack } = shipped();
    const seen = { long: 0, short: 0 };
    for (const symptom of ['dead', 'restart-loop', 'sound-dark'])
      for (const answers of [[], ['rail.standby=absent'], ['rail.standby=in-range', 'rail.main=absent']])
        for (const policy of ['cost', 'information'] as const) {
          const { next, faults } = foldCase(caseOf([symptom], answers), shipped(), policy);
          for (const step of next.filter(({ kind }) => kind === 'repair')) {
            // By the pack's own rows: the probabilities of each fault times the word for how often this repair ends it.
            const repair = pack.repairs.find(({ id }) => id === step.id)!;
            const cures = faults.reduce((sum, { id, probability, assembly }) => {
              const home = pack.faults.find((fault) => fault.id === id)?.assembly;
              const word = repair.fixes[id] ?? repair.fixes[home ?? ''] ?? repair.fixes[assembly ?? ''];
              return sum + probability * (word === undefined ? 0 : pack.scale.likelihood[word]!);
            }, 0);
            expect(step.because.chance).toBeCloseTo(cures, 9);
            expect(isLongShot(step)).toBe(cures < 0.25);
            seen[isLongShot(step) ? 'long' : 'short'] += 1;
          }
        }
    expect(seen.long).toBeGreaterThan(0);
    expect(seen.short).toBeGreaterThan(0);
  });

  test('looking inside, or reading a log there, opens the back in every layout', () => {
    for (const { id } of shipped().pack.layouts) {
      for (const test of ['look.inside', 'serial.log']) {
        const found = shipped().tests.get(test)!;
        if (shipped().fits(found, id)) expect([id, test, shipped().procedure(found, id).stage]).toEqual([id, test, 1]);
      }
    }
  });

  test('every inside step carries the cautions of the open back; what touches the hot side says that it kills', () => {
    const { next, leftOut } = foldCase(caseOf(['dead']), shipped());
    const steps = [...next, ...leftOut.map((left) => left.step)].filter((step) => step.stage !== 'closed');
    expect(steps.length).toBeGreaterThan(5);
    for (const step of steps) expect(step.cautions).toEqual(expect.arrayContaining(['back-off', 'capacitor', 'strap']));
    expect(steps.find((step) => step.id === 'fuse')?.cautions).toContain('primary');
  });
});

describe('the cheapest way to the end', () => {
  const cost = (symptoms: string[], told: string[] = [], newSetMinor = 42_000) =>
    foldCase(
      {
        ...caseOf(symptoms, told),
        settings: {
          rateMinorPerHour: 4800,
          waitShare: 0.2,
          currency: 'EUR',
          wrongPartMinor: 0,
          wrongPartShare: 0,
          hazardMinor: 0,
          newSetMinor,
          orderFreeMinor: 0,
        },
      },
      shipped(),
      'cost',
    ).next;

  test('tests that pay for themselves come first, the best saving for its cost leading', () => {
    const next = cost(['standby-no-start']);
    const tests = next.filter((step) => step.because.code === 'least-cost');
    expect(tests.length).toBeGreaterThan(2);
    // What needs no screw and little time stands before them all.
    const outside = next.filter((step) => step.because.code === 'outside-first');
    expect(outside.length).toBeGreaterThan(0);
    for (const step of outside) expect([step.id, step.stage, step.minutes <= 3]).toEqual([step.id, 'closed', true]);
    expect(next.slice(outside.length, outside.length + tests.length)).toEqual(tests);
    const ratios = tests.map((step) => ((step.because.savesMinor ?? 0) + step.cost.amountMinor) / step.cost.amountMinor);
    for (const [index, ratio] of ratios.entries()) {
      expect(ratio).toBeGreaterThan(1);
      // Savings are told in whole minor units.
      if (index > 0) expect(ratio).toBeLessThanOrEqual((ratios[index - 1] ?? 0) + 0.05);
    }
  });

  test('a shop that opens first goes by cost alone', () => {
    const input = caseOf(['standby-no-start']);
    const first = (schools: Record<string, string>) => foldCase({ ...input, settings: { ...input.settings, schools } }, shipped()).next;
    expect(
      shipped()
        .pack.schools.find(({ id }) => id === 'cover')
        ?.options.map(({ id }) => id),
    ).toContain('open-first');
    expect(first({ cover: 'outside-first' })[0]?.because.code).toBe('outside-first');
    expect(first({ cover: 'open-first' }).some(({ because }) => because.code === 'outside-first')).toBe(false);
  });

  test('once no test pays any more, the repair at hand: labour, opening and part', () => {
    const [first] = cost(['sound-dark'], ['led.output=limit-then-off', 'strings.tester=one-dark', 'reseat:harness.light=unchanged']);
    expect(first).toMatchObject({ kind: 'repair', id: 'replace.strips' });
    // 60 minutes and 45 to lift the glass at 48.00 an hour, and a tenth of 420.00 for the strips.
    expect(first?.cost.amountMinor).toBe(8400 + 4200);
  });

  test('a cracked panel is a question, with its figure: never a silent move', () => {
    const next = cost(['half-picture'], ['look.glass=cracked', 'look.glass=cracked']);
    expect(next.filter((step) => step.because.code === 'least-cost')).toEqual([]);
    expect(next[0]).toMatchObject({ kind: 'stop', id: 'give-up', because: { code: 'crack-ends-repair' } });
    expect(next[0]?.because.toEndMinor).toBeGreaterThan(42_000 * 0.8);
    expect(next.map(({ id }) => id)).not.toContain('replace.panel');
    // Without a crack, what would end in a new panel is put as a question with its figure: labour, opening and the part.
    const ribbons = ['reseat:harness.panel-left=unchanged', 'reseat:harness.panel-right=unchanged'];
    const line = cost(['film-bar'], ['menu=menu-bad', 'bar.width=one-film', ...ribbons]);
    const asked = line.find((step) => step.kind === 'stop');
    expect(asked).toMatchObject({ id: 'give-up', because: { code: 'panel-question' } });
    expect(asked?.because.toEndMinor).toBeGreaterThan(42_000 * 0.8);
    expect(line.map(({ id }) => id)).not.toContain('replace.panel');
  });

  test('a preference shifts what is weighed, not what is said to cost', () => {
    const by = (option: string) => {
      const input = caseOf(['sound-dark']);
      return foldCase({ ...input, settings: { ...input.settings, schools: { dark: option } } }, shipped()).next;
    };
    const place = (option: string, id: string): number => by(option).findIndex((step) => step.id === id);
    expect(place('strips-first', 'strings.tester')).toBeLessThan(place('boards-first', 'strings.tester'));
    expect(place('boards-first', 'bl-on')).toBeLessThanOrEqual(place('strips-first', 'bl-on'));
    const price = (option: string): number => by(option).find((step) => step.id === 'led.output')!.cost.amountMinor;
    expect(price('strips-first')).toBe(price('boards-first'));
    // An option nobody knows is the pack's.
    expect(by('no-such').map((step) => step.id)).toEqual(by('settle').map((step) => step.id));
  });

  test('a dearer new set makes more repairs worth while', () => {
    const repairs = (newSetMinor: number): number => cost(['sound-dark'], [], newSetMinor).filter((step) => step.kind === 'repair').length;
    expect(repairs(8_000)).toBeLessThan(repairs(80_000));
  });
});

describe('time spent', () => {
  const spent = (told: Told[]) => foldCase(caseOf(['restart-loop'], told), shipped()).spent;

  test('is what was typed, and the pack’s minutes where nobody typed any; opening the back is counted once', () => {
    const typed = { kind: 'test.answered', test: 'look.glass', outcome: 'clean', sure: 'sure', minutes: 7 };
    expect(spent([typed])).toMatchObject({ minutes: 7, byTheBook: 0, cost: { amountMinor: 560, currency: 'EUR' } });
    const one = spent(['rail.standby=in-range']).minutes;
    const two = spent(['rail.standby=in-range', 'key-line=moves']).minutes;
    // 3 minutes, 8 to take the back off, half a minute to plug in; the second reading is 3 minutes alone.
    expect([one, two - one]).toEqual([11.5, 3]);
  });

  test('the way to a step costs the same told step by step, and shows as soon as it is gone', () => {
    const opened: Told = { kind: 'set.changed', v: 3, stage: 'back-off', railsDown: true };
    const pluggedIn: Told = { kind: 'set.changed', v: 3, plugged: true };
    expect([spent([opened]).minutes, spent([opened, pluggedIn]).minutes]).toEqual([8, 8.5]);
    expect(spent([opened, pluggedIn, 'rail.standby=in-range']).minutes).toBe(spent(['rail.standby=in-range']).minutes);
    // Minutes typed with the answer hold the way to it; what was opened for nothing before another answer stays.
    const typed: Told = { kind: 'test.answered', test: 'rail.standby', outcome: 'in-range', sure: 'sure', minutes: 7 };
    expect(spent([opened, pluggedIn, typed]).minutes).toBe(7);
    expect(spent([opened, 'torch=not-possible', typed]).minutes).toBe(15);
  });

  test('does not count waits, what was not possible, and what was undone', () => {
    expect(spent(['reset-wait=unchanged']).minutes).toBe(2);
    expect(spent(['key-line=not-possible']).minutes).toBe(0);
    expect(spent(['look.glass=clean', { kind: 'entry.retracted', entry: 2, reason: 'other set' }]).minutes).toBe(0);
  });
});

describe('the fixed list', () => {
  test('goes in the layout’s order, leaves out what does not apply, and says its place', () => {
    const { next } = foldCase(caseOf(['sound-dark'], ['look.glass=clean']), shipped(), 'fixed');
    const positions = next.flatMap((step) => (step.because.position === undefined ? [] : [step.because.position]));
    expect(positions.length).toBeGreaterThan(3);
    expect(positions).toEqual([...positions].sort((a, b) => a - b));
    expect(next.map((step) => step.id)).not.toContain('look.glass');
  });

  test('names its object even where that is not among the likeliest', () => {
    const { next } = foldCase(caseOf(['sound-dark']), shipped(), 'fixed');
    expect(next).toContainEqual(expect.objectContaining({ id: 'reseat', of: 'harness.picture' }));
  });
});

describe('the end of a search', () => {
  test('nothing left that tells more: the tool says it can’t tell yet', () => {
    const all = shipped().pack.tests.flatMap((one) =>
      one.of ? one.of.options.map((of) => `${one.id}:${of}=not-possible`) : [`${one.id}=not-possible`],
    );
    expect(foldCase(caseOf(['many-lines'], all), shipped(), 'information').next).toEqual([
      expect.objectContaining({ kind: 'stop', id: 'cant-tell-yet' }),
    ]);
  });

  test('a repair that did not help is worth one more try at most (the new part may be no good), and its assembly loses', () => {
    const told = ['led.output=limit-then-off', 'strings.tester=one-dark'];
    const failed = foldCase(
      caseOf(['sound-dark'], [...told, { kind: 'repair.done', repair: 'replace.strips', result: 'unchanged' }]),
      shipped(),
    );
    const twice = foldCase(
      caseOf(
        ['sound-dark'],
        [...told, ...Array.from({ length: 2 }, () => ({ kind: 'repair.done', repair: 'replace.strips', result: 'unchanged' }))],
      ),
      shipped(),
    );
    expect(twice.next.map((step) => step.id)).not.toContain('replace.strips');
    const strips = (one: typeof failed): number => one.assemblies.find((assembly) => assembly.id === 'strips')!.probability;
    expect(strips(failed)).toBeLessThan(strips(foldCase(caseOf(['sound-dark'], told), shipped())));
  });

  test('once cured it is to be proven and closed, and nobody is asked whether to give up; another symptom starts anew', () => {
    const cured: Told = { kind: 'repair.done', repair: 'replace.panel', result: 'cured' };
    const told: Told[] = ['look.glass=cracked', 'look.glass=cracked'];
    const first = (more: Told[]) => foldCase(caseOf(['half-picture'], [...told, ...more]), shipped()).next;
    expect(first([]).map(({ id }) => id)).toContain('give-up');
    expect(first([cured])[0]).toMatchObject({ kind: 'stop', id: 'prove-and-close', because: { code: 'cured' } });
    expect(first([cured]).map(({ id }) => id)).not.toContain('give-up');
    // Tests stay open below; the day's plan counts on none of them, but on the proof.
    expect(first([cured]).some(({ kind }) => kind === 'test')).toBe(true);
    expect(cardOf(caseOf(['half-picture'], [...told, cured]), shipped()).ahead.map(({ id }) => id)).toEqual(['proof']);
    expect(cardOf(caseOf(['half-picture']), shipped()).ahead.length).toBeGreaterThan(0);
    const again: Told = { kind: 'symptom.reported', symptoms: ['dead'] };
    expect(first([cured, again]).map(({ id }) => id)).not.toContain('prove-and-close');
  });

  test('a closed job is asked nothing more, and its card says how it ended', () => {
    const input = caseOf(['sound-dark'], ['torch=nothing', { kind: 'job.closed', outcome: 'handed-back', minutes: 20 }]);
    expect(foldCase(input, shipped()).next).toEqual([]);
    expect(cardOf(input, shipped())).toMatchObject({
      state: 'closed',
      outcome: 'handed-back',
      symptoms: ['sound-dark'],
      entryCount: 3,
      lastSeq: 3,
    });
  });
});

test('the whole fold is the same twice', () => {
  const input = caseOf(['standby-no-start', 'blinking'], ['rail.standby=in-range', 'ps-on=stays?'], { family: 'quorvane.qk3' });
  expect(foldCase(input, shipped())).toEqual(foldCase(input, shipped()));
});

describe('reference cases, from symptom to verdict (made up)', () => {
  const cases: [string, string[], string[], string][] = [
    [
      'standby light, rails good, one of main’s own missing',
      ['standby-no-start'],
      [
        'rail.standby=in-range',
        'key-line=moves',
        'ps-on=moves',
        'rail.main=in-range',
        'rail.secondary=one-missing',
        'reseat:harness.power-main=unchanged',
        'loads-off=unchanged',
        'cut.picture=unchanged',
        'forced-start=rails-come',
      ],
      'main',
    ],
    [
      'dead, no standby, still none with main out',
      ['dead'],
      [
        'outlet=unchanged',
        'cord.ohms=through',
        'reset-wait=unchanged',
        'rail.standby=absent',
        'fuse=intact',
        'standby-unloaded=still-absent',
      ],
      'power',
    ],
    [
      'starts and dies, lives without the ribbons',
      ['starts-then-stops'],
      [
        'look.glass=clean',
        'keys-out=unchanged',
        'loads-off=unchanged',
        'cut.picture=comes-alive',
        'cut.panel-both=comes-alive',
        'reseat:harness.panel-left=unchanged',
        'reseat:harness.panel-right=unchanged',
        'bias.rails=one-missing',
      ],
      'panel',
    ],
    [
      'lit and blank, no bias, and none with the ribbons out',
      ['lit-blank'],
      [
        'look.glass=clean',
        'menu=no-menu',
        'cables-out=unchanged',
        'tcon.input=both',
        'bias.rails=all-missing',
        'bias.ribbons-out=missing',
        'reseat:harness.picture=unchanged',
        'swap.known-good:main=unchanged',
      ],
      'tcon',
    ],
    ['a key that sticks', ['standby-no-start'], ['rail.standby=in-range', 'key-line=stays', 'keys-out=comes-alive'], 'keys'],
    [
      'half a picture, cured by reseating, and again after putting it as it was',
      ['half-picture'],
      ['look.glass=clean', 'bar.width=half', 'squeeze=nothing', 'reseat:harness.panel-left=cured', 'reseat:harness.panel-left=cured'],
      'harness.panel-left',
    ],
  ];
  test.each(cases)('%s', (_, symptoms, told, expected) => {
    const fold = foldCase(caseOf(symptoms, told), shipped());
    expect(fold.assemblies[0]).toMatchObject({ id: expected, verdict: 'proven' });
  });
});

test('what a step saves is what it is worth less its price', () => {
  const steps = foldCase(caseOf(['standby-no-start'], ['rail.standby=in-range']), shipped()).next.filter(
    ({ because }) => because.code === 'least-cost',
  );
  expect(steps.length).toBeGreaterThan(2);
  // Outside the set nothing is weighed but what the customer pays.
  const outside = steps.filter(({ stage }) => stage === 'closed');
  expect(outside.length).toBeGreaterThan(0);
  for (const { because, cost } of outside) {
    const price = (because.savesMinor ?? 0) / ((because.perMinor ?? 1) - 1);
    expect(price / cost.amountMinor).toBeCloseTo(1, 1);
  }
});

describe('what nobody would do first', () => {
  const step = (symptom: string, told: Told[], set: Record<string, unknown> = {}) =>
    foldCase(caseOf([symptom], told, set), shipped()).next[0]!;

  test('a repair that most likely cures nothing waits while a test is open that costs no more', () => {
    const oled = step('sound-dark', ['menu=no-menu', 'look.glass=clean'], { layout: 'oled', family: 'tessaluna.or2' });
    expect(oled.kind).toBe('test');
    const keys = step('standby-no-start', ['remote-key=remote-only', 'clicks=clicks'], {
      layout: 'led-tcon-on-panel',
      family: 'calvane.e7',
    });
    expect([keys.kind, keys.id]).toEqual(['test', 'key-line']);
  });

  test('to wait for an hour before the cover comes off', () => {
    for (const symptom of ['dead', 'standby-no-start', 'starts-then-stops', 'sound-dark'])
      for (const layout of ['led-tcon', 'oled', 'plasma']) {
        const { next } = foldCase(caseOf([symptom], [], { layout }), shipped(), 'cost', 'at-once');
        const early = next.filter(({ because }) => because.code === 'outside-first').map(({ id }) => id);
        expect(early.filter((id) => ['warm-hour', 'reset-wait.long'].includes(id))).toEqual([]);
      }
  });

  test('another test, once the glass is proven', () => {
    const told: Told[] = [
      'menu=no-menu',
      'bias.rails=one-missing',
      'short.supply-pins=short-leaves',
      'bias.ohms=short',
      'bias.walk=short-stays',
    ];
    expect(step('lit-blank', told, { family: 'quorvane.qk3' })).toMatchObject({ kind: 'stop', because: { code: 'panel-question' } });
  });

  test('to compare a code where the set counts none', () => {
    const left = (told: Told[]) =>
      foldCase(caseOf(['starts-then-stops'], told), shipped(), 'cost', 'at-once').leftOut.find(({ step: one }) => one.id === 'code-again')
        ?.code;
    expect(left([])).toBe('no-code');
    expect(left([{ kind: 'blink.read', v: 2, groups: [3], cycles: 2, how: 'eye' }])).not.toBe('no-code');
  });
});
