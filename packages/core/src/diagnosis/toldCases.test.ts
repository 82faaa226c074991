/** Told cases, made up: from a symptom to a verdict, three and more for each layout. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped } from '../testing/shipped.ts';
import { foldCase } from './index.ts';

type Told = readonly [name: string, symptom: string, told: readonly string[], expected: string];

const cases: Readonly<Record<string, readonly Told[]>> = {
  'led-tcon': [
    [
      'rails good, one of main’s own missing',
      'standby-no-start',
      [
        'rail.standby=in-range',
        'key-line=moves',
        'rail.main=in-range',
        'rail.secondary=one-missing',
        'reseat:harness.power-main=unchanged',
        'loads-off=unchanged',
        'cut.picture=unchanged',
      ],
      'main',
    ],
    [
      'the strings rise to the limit, the tester finds one dark',
      'sound-dark',
      ['torch=faint-picture', 'led.output=limit-then-off', 'strings.tester=one-dark', 'reseat:harness.light=unchanged'],
      'strips',
    ],
    ['supply before the T-con’s fuse, none behind it', 'lit-blank', ['menu=no-menu', 'tcon.input=one-side', 'bias.ohms=no-short'], 'tcon'],
  ],
  'led-tcon-on-main': [
    [
      'no bias with the ribbons out',
      'lit-blank',
      ['menu=no-menu', 'tcon.input=both', 'bias.rails=all-missing', 'bias.ribbons-out=missing'],
      'main',
    ],
    [
      'lives without the ribbons',
      'restart-loop',
      [
        'look.glass=clean',
        'loads-off=unchanged',
        'cut.panel-both=comes-alive',
        'bias.ohms=short',
        'short.supply-pins=short-leaves',
        'reseat:harness.panel-left=unchanged',
        'reseat:harness.panel-right=unchanged',
      ],
      'panel',
    ],
    [
      'the memory reads otherwise each time and heals cold',
      'slow-start',
      ['rail.main=in-range', 'memory.read-twice=differ', 'chill.memory=heals'],
      'main',
    ],
  ],
  'led-tcon-on-panel': [
    [
      'the bonded T-con gets its supply and makes no bias',
      'lit-blank',
      ['menu=no-menu', 'tcon.input=both', 'bias.rails=all-missing', 'picture.data=active', 'reseat:harness.picture=unchanged'],
      'panel',
    ],
    [
      'standby absent, fuse whole, still absent alone',
      'dead',
      [
        'outlet=unchanged',
        'reset-wait=unchanged',
        'fuse=intact',
        'rail.standby=absent',
        'standby-unloaded=still-absent',
        'standby.loaded=absent',
        'bulk.volts=present',
        'cord.ohms=through',
      ],
      'power',
    ],
    [
      'remote does nothing, a second one does',
      'standby-no-start',
      ['remote-key=key-only', 'remote.second=works', 'emitter-camera=dark'],
      'outside',
    ],
  ],
  'separate-driver': [
    [
      'driver supplied and commanded, nothing comes',
      'sound-dark',
      [
        'driver.supply=present',
        'bl-on=present',
        'dim=present',
        'led.output=none',
        'cut.picture=unchanged',
        'forced-light=dark',
        'reseat:harness.driver=unchanged',
        'reseat:harness.picture=unchanged',
        'led.output=none',
        'strings.tester=all-lit',
      ],
      'driver',
    ],
    [
      'no supply at the driver until its plug was reseated',
      'sound-dark',
      ['driver.supply=absent', 'bl-on=present', 'reseat:harness.driver=cured'],
      'harness.driver',
    ],
    [
      'big rail never comes, not even forced',
      'standby-no-start',
      ['rail.standby=in-range', 'ps-on=moves', 'rail.main=absent', 'forced-start=no-rails', 'forced-loaded=no-rails'],
      'power',
    ],
  ],
  'one-board': [
    [
      'standby there, PS_ON never moves, keys good',
      'standby-no-start',
      ['remote-key=neither', 'rail.standby=in-range', 'key-line=moves', 'ps-on=stays', 'loads-off=unchanged'],
      'combo',
    ],
    [
      'a speaker lead shorted',
      'starts-then-stops',
      [
        'loads-off=comes-alive',
        'load.one:speakers=comes-alive',
        'load.one:speakers=comes-alive',
        'load.one:radio=unchanged',
        'caps.esr=good',
      ],
      'speakers',
    ],
    [
      'half a picture, cured by the ribbon, twice',
      'half-picture',
      ['look.glass=clean', 'bar.width=half', 'squeeze=nothing', 'reseat:harness.panel-left=cured', 'reseat:harness.panel-left=cured'],
      'harness.panel-left',
    ],
  ],
  oled: [
    [
      'panel supplies wrong with the T-con off',
      'sound-dark',
      [
        'tcon.input=none',
        'oled.rails=wrong',
        'oled.rails=wrong',
        'ps-on=moves',
        'rail.main=in-range',
        'panel-switch=present',
        'jig.oled=none-lamp-on',
        'caps.esr=good',
        'reseat:harness.tcon-power=unchanged',
      ],
      'power',
    ],
    [
      'the jig draws, and draws badly',
      'film-bar',
      [
        'look.glass=clean',
        'bar.width=one-film',
        'reseat:harness.panel-left=unchanged',
        'reseat:harness.panel-right=unchanged',
        'jig.oled=damaged-pattern',
        'tcon.output=both',
      ],
      'panel',
    ],
    ['the jig draws cleanly', 'sound-dark', ['menu=no-menu', 'jig.oled=clean-pattern', 'picture.data=still'], 'main'],
  ],
  plasma: [
    [
      'the short leaves with the buffers',
      'starts-then-stops',
      [
        'logic.lamp=dark',
        'short.plug:scan-sustain=short-leaves',
        'short.plug:scan-buffers=short-leaves',
        'short.plug:common-sustain=short-stays',
        'short.plug:scan-buffers=short-leaves',
        'sustain.volts=collapsed',
      ],
      'scan-buffers',
    ],
    [
      'the short leaves with the board and stays without its buffers',
      'starts-then-stops',
      ['short.plug:scan-sustain=short-leaves', 'short.plug:scan-buffers=short-stays'],
      'scan-sustain',
    ],
    [
      'faint and tinted, sustain good, self-test tinted',
      'faint-or-dots',
      ['white-selftest=tint', 'sustain.volts=in-range', 'pattern.own=bad'],
      'common-sustain',
    ],
    [
      'white by itself, black from main',
      'sound-dark',
      ['logic.lamp=lit', 'white-selftest=white', 'reseat:harness.picture=unchanged', 'picture.data=still'],
      'main',
    ],
  ],
};

describe.each(Object.entries(cases))('%s', (layout, told) => {
  test.each(told)('%s', (_, symptom, answers, expected) => {
    const fold = foldCase(caseOf([symptom], answers, { layout }), shipped());
    const [top] = fold.assemblies;
    expect({ id: top?.id, verdict: top?.verdict, unused: fold.unused }).toEqual({
      id: expected,
      verdict: expected === 'outside' ? 'likely-not-split' : 'proven',
      unused: [],
    });
  });

  test('has three of them at least', () => expect(told.length).toBeGreaterThanOrEqual(3));
});

test('a speaker’s short is told from the audio stage’s: the one leaves with the load, the other stays', () => {
  const probability = (answer: string, id: string): number =>
    foldCase(caseOf(['starts-then-stops'], [answer], { layout: 'led-tcon' }), shipped()).faults.find((one) => one.id === id)!.probability;
  expect(probability('loads-off=comes-alive', 'speakers.shorted')).toBeGreaterThan(
    2 * probability('loads-off=comes-alive', 'main.audio-short'),
  );
  expect(probability('loads-off=unchanged', 'main.audio-short')).toBeGreaterThan(
    5 * probability('loads-off=unchanged', 'speakers.shorted'),
  );
});
