/** A step that contradicts its caution, or does what no caution of its covers, is refused. Rules: common practice, no source. */
import { describe, expect, test } from '@jest/globals';
import { foldCase } from '../diagnosis/index.ts';
import { caseOf, shipped, shippedPack } from '../testing/shipped.ts';
import { checkPack, type Pack, type Step } from './index.ts';
import { hazardsOfTest } from './hazards.ts';

const item = <T extends { id: string }>(items: readonly T[], id: string): T => items.find((one) => one.id === id)!;
const spoilt = (spoil: (pack: Pack) => void): string[] => {
  const pack = shippedPack();
  spoil(pack);
  return checkPack(pack).map(({ code, where, value }) => `${code} ${where} ${String(value)}`);
};
const steps = (pack: Pack, id: string): Step[] => item(pack.tests, id).do;

describe('contradictions between what a step does and its cautions', () => {
  test('the shipped pack has none', () => expect(spoilt(() => undefined)).toEqual([]));

  test.each<[string, (pack: Pack) => void, string]>([
    [
      'a frosted chip started at once',
      (p) => steps(p, 'chill.memory').splice(3, 1),
      'caution-contradicted tests/chill.memory.do frost: dry-first',
    ],
    ['solvent, then power', (p) => steps(p, 'reseat').splice(3, 1), 'caution-contradicted tests/reseat.do solvent: dry-first'],
    [
      'a heatsink felt under power',
      (p) => steps(p, 'processor.feel').splice(2, 2),
      'caution-contradicted tests/processor.feel.do hot-part: unplugged-touch',
    ],
    [
      'a tester on the strips on a look alone',
      (p) => (steps(p, 'strings.tester')[1] = { drain: 'rails-down' }),
      'caution-contradicted tests/strings.tester.do primary: verified-first',
    ],
    [
      'a live light plug left unmeasured afterwards',
      (p) => steps(p, 'led.output').splice(-2, 2),
      'caution-contradicted tests/led.output.do led-volts: clip-on',
    ],
    [
      'clips put on a live light plug',
      (p) => steps(p, 'led.output').splice(0, 3),
      'caution-contradicted tests/led.output.do led-volts: clip-on',
    ],
    [
      'a ribbon pulled with rails up',
      (p) => steps(p, 'cut.picture').splice(1, 1),
      'caution-contradicted tests/cut.picture.do cold-cut: rails-down-first',
    ],
    [
      'a line forced against main’s output',
      (p) => steps(p, 'forced-loaded').splice(2, 1),
      'caution-contradicted tests/forced-loaded.do forced: read-line-first',
    ],
    [
      'a line forced unread',
      (p) => delete item(p.tests, 'forced-start').first,
      'caution-contradicted tests/forced-start.do forced: read-line-first',
    ],
    ['squeezing an OLED panel', (p) => item(p.tests, 'squeeze').scope.layouts!.push('oled'), 'caution-forbids tests/squeeze.scope oled'],
  ])('%s', (_, spoil, expected) => expect(spoilt(spoil)).toContain(expected));

  test.each<[string, (pack: Pack) => void, string]>([
    [
      'a live reading without its caution',
      (p) => (item(p.tests, 'ps-on').cautions = []),
      'hazard-without-caution tests/ps-on.cautions live',
    ],
    ['a plug moved without one', (p) => (item(p.tests, 'keys-out').cautions = []), 'hazard-without-caution tests/keys-out.cautions plugs'],
    [
      'the light plug reseated like any ribbon',
      (p) => delete item(p.assemblies, 'harness.light').cautions,
      'hazard-without-caution tests/reseat.cautions hot',
    ],
    [
      'a part taken off without the iron’s caution',
      (p) => (item(p.tests, 'bias.walk').cautions = ['cold-cut']),
      'hazard-without-caution tests/bias.walk.cautions solder',
    ],
    [
      'capacitors soldered without it',
      (p) => (item(p.repairs, 'recap.power').cautions = ['primary']),
      'hazard-without-caution repairs/recap.power.cautions solder',
    ],
    [
      'a memory read without its supply',
      (p) => (item(p.tests, 'emmc.health').cautions = ['cold-cut']),
      'hazard-without-caution tests/emmc.health.cautions chip',
    ],
    [
      'a reset without consent',
      (p) => (item(p.tests, 'update-reset').cautions = []),
      'hazard-without-caution tests/update-reset.cautions data',
    ],
    ['warm air', (p) => (item(p.tests, 'warm.one').cautions = ['data']), 'hazard-without-caution tests/warm.one.cautions warm'],
    [
      'a board of another maker',
      (p) => (item(p.tests, 'universal-board').cautions = ['cold-cut']),
      'hazard-without-caution tests/universal-board.cautions substitute',
    ],
    [
      'a line driven',
      (p) => (item(p.tests, 'forced-start').cautions = ['live-cold', 'cold-cut']),
      'hazard-without-caution tests/forced-start.cautions forcing',
    ],
  ])('uncovered: %s', (_, spoil, expected) => expect(spoilt(spoil)).toContain(expected));

  test('tapping the back is pressure on the glass; a rod on a running board is live work', () => {
    const pack = shippedPack();
    const reach = { layout: item(pack.layouts, 'led-tcon'), pack, of: undefined };
    expect(hazardsOfTest(item(pack.tests, 'tap'), reach)).toEqual(['tap']);
    expect(hazardsOfTest(item(pack.tests, 'press.processor'), reach)).toContain('live');
  });
});

describe('cautions of a step on the screen', () => {
  const cautions = (id: string, layout: unknown, symptoms = ['sound-dark'], told: string[] = []): readonly string[] => {
    const { next, leftOut } = foldCase(caseOf(symptoms, told, { layout }), shipped());
    return (
      [...next, ...leftOut.map(({ step }) => step)].find((step) => step.id === id || `${step.id}:${step.of ?? ''}` === id)?.cautions ?? []
    );
  };
  test('black on chassis is not told where mains and cold side share the board, nor while it may be such a set', () => {
    expect(cautions('bl-on', 'led-tcon')).toContain('live-cold');
    for (const layout of ['one-board', { probabilities: { 'led-tcon': 0.8, 'one-board': 0.2 } }]) {
      expect(cautions('bl-on', layout)).toContain('live-shared');
      expect(cautions('bl-on', layout)).not.toContain('live-cold');
    }
  });
  test('the light plug has its own caution whatever is done to it', () => {
    expect(cautions('reseat:harness.light', 'led-tcon')).toContain('led-volts');
    expect(cautions('reseat:harness.picture', 'led-tcon')).not.toContain('led-volts');
  });
  test('cracked glass is neither squeezed nor tapped', () => {
    const codeOf = (told: string[]) =>
      foldCase(caseOf(['sound-dark'], told), shipped()).leftOut.find(({ step }) => step.id === 'squeeze')?.code;
    expect(codeOf([])).not.toBe('glass-cracked');
    expect(codeOf(['look.glass=cracked'])).toBe('glass-cracked');
  });
  test('nothing is written to a memory before it was identified and its own content read twice', () => {
    const told = (more: string[]) => {
      const { next } = foldCase(
        caseOf(['standby-no-start'], ['rail.standby=in-range', 'chill.memory=heals', 'chill.memory=heals', ...more]),
        shipped(),
      );
      return next.map(({ id }) => id).filter((id) => /^rewrite|^memory/.test(id));
    };
    expect(told([])[0]).toBe('memory.identify');
    expect(told([])).not.toContain('rewrite.startup');
    expect(told(['memory.identify=found'])).toContain('memory.read-twice');
    expect(told(['memory.identify=found'])).not.toContain('rewrite.startup');
    expect(told(['memory.identify=found', 'memory.read-twice=differ'])).toContain('rewrite.startup');
    // A chip that doesn't answer has nothing to save: a new one is written.
    expect(told(['memory.identify=missing'])).toContain('rewrite.startup');
  });
});
