import { describe, expect, test } from '@jest/globals';
import { InputRefused } from '../problems.ts';
import { shippedFiles, shippedPack } from '../testing/shipped.ts';
import { assemblePack, checkPack, hashPack, parsePack, type Pack } from './index.ts';

const item = <T extends { id: string }>(items: T[], id: string): T => {
  const found = items.find((one) => one.id === id);
  if (!found) throw new Error(`the shipped pack has no ${id}`);
  return found;
};

describe('the shipped pack', () => {
  test('passes its own check', () => {
    expect(checkPack(shippedPack())).toEqual([]);
  });

  test('is as broad as promised: faults on every assembly, cable and outside cause, and the known tests', () => {
    const pack = shippedPack();
    const layout = item(pack.layouts, 'led-tcon');
    expect(pack.faults.length).toBeGreaterThanOrEqual(20);
    expect(pack.tests.length).toBeGreaterThanOrEqual(18);
    for (const assembly of layout.assemblies) expect(pack.faults.some((fault) => fault.assembly === assembly)).toBe(true);
    // Ids and outcomes that other programs may rely on (docs/knowledge.md).
    const known: Record<string, string[]> = {
      'look.glass': ['clean', 'cracked', 'liquid'],
      outlet: ['cured', 'unchanged'],
      'cables-out': ['cured', 'unchanged'],
      'reset-wait': ['cured', 'unchanged'],
      'update-reset': ['cured', 'unchanged'],
      'swap.known-good': ['cured', 'unchanged'],
      'remote-key': ['both-work', 'remote-only', 'key-only', 'neither'],
      torch: ['faint-picture', 'nothing'],
      tap: ['flash', 'nothing'],
      squeeze: ['picture-changes', 'nothing'],
      'dark-start': ['flash-once', 'nothing'],
      fuse: ['intact', 'open'],
      'rail.standby': ['in-range', 'low', 'absent'],
      'key-line': ['moves', 'stays'],
      'ps-on': ['moves', 'stays'],
      'forced-start': ['rails-come', 'no-rails'],
      'rail.main': ['in-range', 'absent', 'pulsing'],
      'rail.secondary': ['all-in-range', 'one-missing', 'all-missing'],
      'bl-on': ['present', 'absent'],
      'cut.power-main': ['lit', 'dark'],
      'cut.picture': ['comes-alive', 'unchanged'],
      'cut.panel-both': ['comes-alive', 'unchanged'],
      'cut.panel-left': ['comes-alive', 'half-picture', 'unchanged'],
      'cut.panel-right': ['comes-alive', 'half-picture', 'unchanged'],
      'code-again': ['same', 'changed', 'gone'],
      'heat.all-but': ['heals', 'stays'],
    };
    for (const [id, outcomes] of Object.entries(known)) {
      const own = item(pack.tests, id).observe.outcomes.map((outcome) => outcome.id);
      expect([id, own]).toEqual([id, expect.arrayContaining(outcomes)]);
    }
  });
});

describe('a spoilt pack is refused', () => {
  const spoilt: [string, (pack: Pack) => void, Record<string, unknown>][] = [
    [
      'a row whose words add up to too much, with the sum',
      (pack) => (item(pack.faults, 'main.no-ps-on').symptoms = { dead: 'always', blinking: 'always' }),
      { code: 'row-sum', value: 1.96 },
    ],
    [
      'a row whose words add up to too little',
      (pack) => (item(pack.faults, 'main.no-ps-on').symptoms = { dead: 'sometimes' }),
      { code: 'row-sum', value: 0.3 },
    ],
    [
      'two outcomes that both take the rest',
      (pack) => (item(pack.tests, 'torch').likelihood[0]!.rows[0]!.likelihoods = { 'faint-picture': 'rest', nothing: 'rest' }),
      { code: 'row-rest-twice' },
    ],
    [
      'a word that is not on the scale',
      (pack) => (item(pack.tests, 'torch').error = 'perhaps'),
      { code: 'word-unknown', value: 'perhaps' },
    ],
    [
      'a row for an assembly nobody knows',
      (pack) => item(pack.tests, 'torch').likelihood[0]!.rows[0]!.for.push('flux-capacitor'),
      { code: 'unknown-id', value: 'flux-capacitor' },
    ],
    [
      'a cut that treats one assembly beyond it differently without a reason',
      (pack) =>
        item(pack.tests, 'cut.picture')
          .likelihood.at(-1)!
          .rows.push({ for: ['tcon'], likelihoods: { unchanged: 'always' } }),
      { code: 'exception-without-reason', value: 'tcon' },
    ],
    [
      'a plug that is never put back',
      (pack) =>
        (item(pack.tests, 'cut.picture').do = [{ unplug: true }, { drain: 'rails-down' }, { pull: ['harness.picture'] }, { power: 'on' }]),
      { code: 'pull-not-restored' },
    ],
    [
      'a plug pulled inside a set that is plugged in',
      (pack) => (item(pack.tests, 'cut.picture').do = [{ power: 'on' }, { pull: ['harness.picture'] }, { restore: ['harness.picture'] }]),
      { code: 'pull-under-power' },
    ],
    ['a live reading without a caution', (pack) => (item(pack.tests, 'bl-on').cautions = []), { code: 'procedure-without-caution' }],
    [
      'a hot point without a caution that says it kills',
      (pack) => (item(pack.tests, 'fuse').cautions = ['tap']),
      { code: 'procedure-without-caution' },
    ],
    [
      'a swap that would be done before the code is read',
      (pack) => (item(pack.tests, 'swap.known-good').disturbsCode = false),
      { code: 'code-before-disturbance' },
    ],
    [
      'an assembly without a proof requirement',
      (pack) => delete item(pack.layouts, 'led-tcon').proof.tcon,
      { code: 'proof-missing', value: 'tcon' },
    ],
    ['something that feeds itself', (pack) => item(pack.layouts, 'led-tcon').feeds.push(['panel', 'power']), { code: 'graph-cycle' }],
    [
      'something that nothing feeds',
      (pack) => (item(pack.layouts, 'led-tcon').feeds = item(pack.layouts, 'led-tcon').feeds.filter(([, to]) => to !== 'radio')),
      { code: 'graph-unreachable', value: 'radio' },
    ],
    [
      'the same code twice in one family',
      (pack) => item(pack.families, 'quorvane.qk3').blink.push({ ...item(pack.families, 'quorvane.qk3').blink[0]!, id: 'again' }),
      { code: 'duplicate-id' },
    ],
    [
      'a live reading on a set that was unplugged',
      (pack) => (item(pack.tests, 'bl-on').do = [{ unplug: true }, { measure: 'volts', at: 'bl-on', in: 'on' }]),
      { code: 'state-unreachable', value: 'volts on' },
    ],
    [
      'a dead reading on a set that is plugged in',
      (pack) => (item(pack.tests, 'fuse').do = [{ power: 'plugged' }, { measure: 'ohms', at: 'line-fuse', in: 'verified' }]),
      { code: 'state-unreachable' },
    ],
    [
      'the same procedure and answer that mean opposite things in two tests',
      (pack) => {
        const torch = item(pack.tests, 'torch');
        pack.tests.push({
          ...structuredClone(torch),
          id: 'torch.again',
          likelihood: [
            {
              rows: [
                { for: ['strips'], likelihoods: { 'faint-picture': 'never', nothing: 'rest' } },
                { for: ['*'], likelihoods: { 'faint-picture': 'often', nothing: 'rest' } },
              ],
            },
          ],
        });
      },
      { code: 'opposite-meanings', expected: 'torch.again' },
    ],
    [
      'an outcome that nobody could see',
      (pack) => delete item(pack.tests, 'torch').observe.outcomes[0]!.seen,
      { code: 'outcome-not-observable', value: 2 },
    ],
    [
      'a fault of an assembly that no layout has',
      (pack) => {
        pack.assemblies.push({ id: 'valve', name: { en: 'Valve' }, kind: 'assembly' });
        pack.faults.push({ ...structuredClone(pack.faults[0]!), id: 'valve.dead', assembly: 'valve', frequency: { '*': 'rare' } });
      },
      { code: 'never-applies' },
    ],
    [
      'a test that goes to a place nobody knows',
      (pack) => (item(pack.tests, 'torch').do = [{ power: 'on' }, { torch: 'moon' }]),
      { code: 'unknown-id', value: 'moon' },
    ],
    ['two faults of one name', (pack) => pack.faults.push({ ...pack.faults[0]! }), { code: 'duplicate-id' }],
    ['an alias that leads nowhere', (pack) => (pack.aliases['old.name'] = 'no.such'), { code: 'alias-to-nowhere', value: 'no.such' }],
  ];
  test.each(spoilt)('%s', (_, spoil, problem) => {
    const pack = shippedPack();
    spoil(pack);
    expect(checkPack(pack)).toContainEqual(expect.objectContaining(problem));
  });
});

describe('assembling', () => {
  test('file order does not matter: the same folder has the same hash', () => {
    const files = shippedFiles();
    expect(hashPack(assemblePack([...files].reverse()))).toBe(hashPack(assemblePack(files)));
  });

  test('any change of content changes the hash', () => {
    const pack = shippedPack();
    item(pack.tests, 'torch').minutes += 1;
    expect(hashPack(pack)).not.toBe(hashPack(shippedPack()));
  });

  test('all problems of all files come at once, named by file and item', () => {
    const files = shippedFiles().map((file) => (file.path === 'symptoms.json' ? { ...file, text: '[' } : file));
    let problems: unknown;
    try {
      assemblePack([...files, { path: 'notes.json', text: '{}' }]);
    } catch (error) {
      problems = (error as InputRefused).problems;
    }
    expect(problems).toEqual([
      expect.objectContaining({ code: 'schema', where: 'notes.json' }),
      expect.objectContaining({ code: 'not-json', where: 'symptoms.json' }),
    ]);
  });

  test('a missing source is named by the item it is missing from', () => {
    const pack = shippedPack() as unknown as { tests: Record<string, unknown>[] };
    delete pack.tests.find((one) => one.id === 'torch')?.source;
    expect(() => parsePack(pack)).toThrow(
      expect.objectContaining({ problems: [expect.objectContaining({ where: 'pack.tests/torch.source' })] }),
    );
  });
});
