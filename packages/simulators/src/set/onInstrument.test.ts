/** Searches on a simulated set end where its fault is. What each has to end in was written from the trade (common practice, no source). */
import { describe, expect, test } from '@jest/globals';
import { compareFrames, compilePack, instruments, parseFrame, runInstrument, type Report } from '@veglia/core';
import { readPackFolder } from '@veglia/contract/node';
import { fileURLToPath } from 'node:url';
import { shownInstruments, SimulatedSet } from './index.ts';

const compiled = compilePack(await readPackFolder(fileURLToPath(new URL('../../../../knowledge', import.meta.url))));
const setWith = (fault: string, seed: number, layout = 'led-tcon'): SimulatedSet =>
  new SimulatedSet({ layout: compiled.layouts.get(layout)!, faults: fault === '' ? [] : [fault], seed });
const seeds = Array.from({ length: 12 }, (_, index) => index + 1);

function reportOf(id: string, typed: Record<string, string>): Report {
  const outcome = runInstrument(
    instruments.find((one) => one.id === id)!,
    typed,
  );
  if (!outcome.ok) throw new Error(`${id}: ${JSON.stringify(outcome.problems)}`);
  return outcome.report;
}
const codes = ({ findings }: Report): string[] => findings.map(({ code }) => code);

describe('a set shows on an instrument what its fault makes', () => {
  test.each([
    ['', 'bias', ['bias-all-there']],
    ['panel.rail-short-cap', 'bias', ['bias-trips']],
    ['tcon.fuse-open', 'bias', ['bias-none']],
    ['', 'halves', ['halves-tcon']],
    ['', 'strips', ['strips-all-good']],
    ['strips.led-open', 'strips', ['strips-open', 'strips-replace']],
    ['strips.joint-open', 'strips', ['strips-joint', 'strips-replace']],
    ['strips.led-shorted', 'strips', ['strips-short', 'strips-replace']],
    ['driver.dead', 'string', ['no-output']],
    ['strips.led-open', 'string', ['string-open']],
    ['speakers.shorted', 'plugs', ['short-leaves']],
    ['radio.shorted', 'plugs', ['short-leaves']],
    ['', 'plugs', ['no-short']],
    ['', 'siblings', ['siblings-alike']],
    ['', 'junction', ['junction-good']],
    ['panel.film-left', 'bar', null],
  ] as [string, string, string[] | null][])('%s on %s', (fault, instrument, says) => {
    for (const seed of seeds) {
      const found = codes(reportOf(instrument, setWith(fault, seed).onInstrument(instrument)!));
      if (says) expect(found).toEqual(says);
      // A film that goes in part only leaves no bar of a driver's width.
      else expect([[], ['bar-is-one-driver']]).toContainEqual(found);
    }
  });
  test('halves: the side of the short comes alive when it is out, and only that', () => {
    for (const seed of seeds)
      expect(codes(reportOf('halves', setWith('panel.rail-short-cap', seed).onInstrument('halves')!))[0]).toMatch(/^halves-(left|right)$/);
  });
  test('an LED that fails at full current passes the hand tester', () => {
    const set = setWith('strips.weak-at-full', 3);
    expect(codes(reportOf('strips', set.onInstrument('strips', {}, { tester: 'hand' })!))).toEqual([
      'strips-all-good',
      'strips-hand-tester',
    ]);
    expect(codes(reportOf('strips', set.onInstrument('strips', {}, { tester: 'full' })!))).toEqual(['strips-open', 'strips-replace']);
  });
  test('shorted LEDs are counted by their volts', () => {
    for (const seed of seeds) {
      const found = codes(reportOf('string', setWith('strips.led-shorted', seed).onInstrument('string')!));
      expect(found[0]).toBe('leds-shorted');
    }
  });
  test('a charge falls, and the rest of the way is timed', () => {
    const typed = { ...setWith('', 2).onInstrument('discharge')!, farads: '150u' };
    expect(reportOf('discharge', typed).findings.map(({ tone }) => tone)).not.toContain('bad');
  });
  test('the milliohm walk ends at the shorted capacitor, and it clears with it; behind a film no capacitor is it', () => {
    const walked = seeds.slice(0, 6);
    let right = 0;
    for (const seed of walked) {
      const set = setWith('panel.rail-short-cap', seed);
      let typed: Record<string, string> = { ...set.onInstrument('short')! };
      for (let n = 0; n < 9; n += 1) {
        const next = reportOf('short', typed).findings.find(({ code }) => code.startsWith('short-read'));
        if (!next) break;
        typed = { ...typed, ...set.onInstrument('short', typed, { at: Number(next.values.at) }) };
      }
      const likeliest = reportOf('short', typed).figures.find(({ id }) => id === 'likeliest')?.value;
      if (likeliest === undefined) continue;
      const after = set.onInstrument('short', typed, { takenOff: likeliest - 1 })!;
      if (after.takenOff === 'gone') right += 1;
      expect(codes(reportOf('short', { ...typed, ...after }))).toEqual([after.takenOff === 'gone' ? 'short-gone' : 'short-not-gone']);
    }
    expect(right).toBeGreaterThanOrEqual(walked.length - 1);
    for (const seed of seeds) {
      const set = setWith('panel.rail-short-film', seed);
      for (const takenOff of [0, 3, 7]) expect(set.onInstrument('short', {}, { takenOff })?.takenOff).toBe('stays');
    }
  });
  test('contacts are masked down to the guilty line', () => {
    for (const seed of seeds) {
      const set = setWith('panel.clock-short', seed);
      let typed: Record<string, string> = { ...set.onInstrument('mask')! };
      let trials = 0;
      for (; trials < 9; trials += 1) {
        const next = reportOf('mask', typed).findings.find(({ code }) => code === 'mask-next');
        if (!next) break;
        const uncovered = String(next.values.uncover)
          .split(/[^\d]+/)
          .filter((one) => one !== '')
          .map(Number);
        typed = { ...typed, ...set.onInstrument('mask', typed, { uncovered }) };
      }
      const done = reportOf('mask', typed).findings.find(({ code }) => code === 'mask-done');
      expect(String(done?.values.cover)).toMatch(/^\d$/);
      // With that line covered it starts, and with it open it doesn't.
      const line = Number(done?.values.cover);
      expect(set.onInstrument('mask', {}, { uncovered: [line] })?.trials).toMatch(/loops$/);
    }
  });
  test('what is shorted warms first in the temperature pictures', () => {
    for (const seed of seeds) {
      const pictures = setWith('main.audio-short', seed, 'led-tcon').onInstrument('thermal')!;
      const { spots } = compareFrames(['before', 'after'].map((name, seconds) => ({ ...parseFrame(pictures[name] ?? ''), seconds })));
      const first = spots[0];
      const silent = Math.abs((first?.x ?? 0) * 64 - 44.5) < 1.5;
      // One in seven of these stages is silent without a short.
      if (!silent)
        expect([Math.round((first?.x ?? 0) * 64), Math.round((first?.y ?? 0) * 48)]).toEqual([
          expect.closeTo(14.5, -0.5),
          expect.closeTo(36.5, -0.5),
        ]);
    }
  });
  test('the same set shows the same; what only calculates is told nothing', () => {
    for (const id of shownInstruments)
      expect(setWith('strips.led-open', 5).onInstrument(id)).toEqual(setWith('strips.led-open', 5).onInstrument(id));
    expect(setWith('', 1).onInstrument('kit')).toBeUndefined();
    const measuring = instruments.filter(({ measures }) => measures).map(({ id }) => id);
    expect([...shownInstruments].sort()).toEqual([...measuring, 'thermal'].sort());
  });
});
