/** A reading further along the chain that only says the same again; common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import { caseOf, shipped, shippedPack } from '../../testing/shipped.ts';
import { checkPack, compilePack } from '../../knowledge/index.ts';
import { foldCase, type CaseFold } from '../index.ts';

const fold = (told: string[], symptom = 'standby-no-start'): CaseFold =>
  foldCase(caseOf([symptom], told), shipped(), 'information', 'at-once');
const probabilities = (one: CaseFold): [string, number][] => one.assemblies.map(({ id, probability: p }) => [id, p]);
const offered = (one: CaseFold, id: string): boolean => one.next.some((step) => step.kind === 'test' && step.id === id);

describe('what follows from a reading', () => {
  test.each([
    ['no standby: the key line can only stay', 'rail.standby=absent', 'key-line=stays'],
    ['a low standby: no click comes', 'rail.standby=low', 'clicks=none'],
    ['no big rail: nothing behind it is fed', 'rail.main=absent', 'rail.secondary=all-missing'],
    ['no T-con supply: no bias', 'tcon.input=none', 'bias.rails=all-missing', 'lit-blank'],
  ])('%s: it moves nothing, in either order, and is not asked for', (_, reading, follower, symptom = 'standby-no-start') => {
    const [id] = follower.split('=');
    const alone = fold([reading], symptom);
    for (const told of [
      [reading, follower],
      [follower, reading],
    ]) {
      const both = fold(told, symptom);
      expect(probabilities(both)).toEqual(probabilities(alone));
      expect(both.unused).toContainEqual(expect.objectContaining({ code: 'follows', id }));
    }
    expect(offered(alone, id!)).toBe(false);
    expect(alone.leftOut.find(({ step }) => step.id === id)?.code).toBe('follows');
  });

  // What nobody would ask any more. Walked on the screen by hand; common practice, no source.
  test.each([
    ['a menu seen by the lamp', 'sound-dark', ['torch=faint-picture'], ['menu', 'pattern.own', 'look.glass']],
    [
      'a set that its remote starts',
      'standby-no-start',
      ['remote-key=remote-only'],
      ['remote.second', 'signs-of-life', 'outlet', 'warm-hour'],
    ],
    ['a set that answers neither', 'standby-no-start', ['remote-key=neither'], ['signs-of-life', 'longest-start']],
    ['no rail with main out', 'dead', ['standby-unloaded=still-absent'], ['rail.standby', 'standby.loaded']],
    [
      'no charge behind a good fuse: what the rail says is known',
      'dead',
      ['fuse=open'],
      ['rail.standby', 'bulk.volts', 'ps-on', 'key-line'],
    ],
    ['a standby rail that gives way to a resistor', 'standby-no-start', ['standby.loaded=sags'], ['rail.standby', 'ps-on', 'rail.main']],
    ['the same with both ribbons out', 'starts-then-stops', ['cut.panel-both=unchanged'], ['cut.panel-left', 'cut.panel-right']],
    ['a short that leaves with the ribbons', 'lit-blank', ['short.supply-pins=short-leaves'], ['bias.ohms', 'bias.rails']],
    ['a driver that drives', 'sound-dark', ['led.output=limit-then-off'], ['bl-on', 'dim', 'driver.supply']],
    ['a blank screen has no bar to measure', 'lit-blank', [], ['bar.width']],
  ])('%s', (_, symptom, told, asked) => {
    const now = fold(told, symptom);
    const first = now.next.slice(0, 12).map((step) => step.id);
    for (const id of asked) expect(first).not.toContain(id);
    if (told.length > 0) for (const id of asked) expect([id, offered(now, id)]).toEqual([id, false]);
  });

  test('what two tests say of each other counts once: of the one that was read first', () => {
    const one = fold(['bias.ohms=no-short'], 'lit-blank');
    const both = fold(['bias.ohms=no-short', 'short.supply-pins=no-short'], 'lit-blank');
    expect(both.unused).toEqual([expect.objectContaining({ code: 'follows', id: 'short.supply-pins' })]);
    expect(probabilities(both)).toEqual(probabilities(one));
    const turned = fold(['short.supply-pins=no-short', 'bias.ohms=no-short'], 'lit-blank');
    expect(turned.unused).toEqual([]);
  });

  test('read before it, what it implies is another look, and counts; a proof needs no look of its own at it', () => {
    const alone = fold(['standby-unloaded=still-absent'], 'dead');
    const looked = fold(['rail.standby=absent', 'standby-unloaded=still-absent'], 'dead');
    expect(looked.unused).toEqual([]);
    expect(probabilities(looked)).not.toEqual(probabilities(alone));
  });

  test('what follows has consequences of its own, unless a reading says otherwise', () => {
    expect(offered(fold(['fuse=open'], 'dead'), 'serial.log')).toBe(false);
    expect(fold(['fuse=open', 'rail.standby=in-range', 'clicks=none'], 'dead').unused.map(({ id }) => id)).not.toContain('clicks');
  });

  test('only in the layouts it is said of', () => {
    const pack = shippedPack();
    const only = (layouts: string[]) =>
      compilePack({
        ...pack,
        consequences: pack.consequences.map((one) => (one.id === 'picture-by-torch' ? { ...one, layouts } : one)),
      });
    const menu = (layouts: string[]): boolean =>
      offered(foldCase(caseOf(['sound-dark'], ['torch=faint-picture'], { layout: 'led-tcon' }), only(layouts), 'cost', 'at-once'), 'menu');
    expect([menu(['led-tcon']), menu(['one-board'])]).toEqual([false, true]);
    expect(checkPack({ ...pack, consequences: [{ ...pack.consequences[0]!, layouts: ['no-such'] }] })).toContainEqual(
      expect.objectContaining({ value: 'no-such' }),
    );
  });

  test('what contradicts it speaks', () => {
    const both = fold(['rail.standby=absent', 'clicks=clicks']);
    expect(both.unused.map(({ code }) => code)).not.toContain('follows');
    expect(probabilities(both)).not.toEqual(probabilities(fold(['rail.standby=absent'])));
  });

  test.each([
    ['a good reading', ['rail.standby=in-range']],
    ['one that isn’t certain', ['rail.standby=absent?']],
    ['two that disagree', ['rail.standby=absent', 'rail.standby=in-range']],
  ])('%s: nothing follows', (_, told) => {
    expect(fold([...told, 'key-line=stays']).unused.map(({ code }) => code)).not.toContain('follows');
  });

  test('a reading before the repair that changed the symptom: nothing follows', () => {
    const after = foldCase(
      caseOf(
        ['dead'],
        [
          'rail.standby=absent',
          { kind: 'repair.done', v: 1, repair: 'replace.power', result: 'changed' },
          { kind: 'symptom.reported', v: 2, symptoms: ['standby-no-start'] },
          'key-line=stays',
        ],
      ),
      shipped(),
      'information',
      'at-once',
    );
    expect(after.unused.map(({ code }) => code)).not.toContain('follows');
  });

  test('the pack check refuses a test or an outcome that isn’t there', () => {
    const pack = shippedPack();
    const [first, ...rest] = pack.consequences;
    const wrong = (change: object) =>
      checkPack({ ...pack, consequences: [{ ...first!, ...change }, ...rest] }).filter(({ where }) => where.startsWith('consequences/'));
    expect(wrong({ then: { 'key-line': 'sings' } })).toEqual([expect.objectContaining({ code: 'unknown-id', value: 'sings' })]);
    expect(wrong({ after: { test: 'no-such', outcomes: ['absent'] } })).toEqual([expect.objectContaining({ value: 'no-such' })]);
    expect(wrong({})).toEqual([]);
  });
});
