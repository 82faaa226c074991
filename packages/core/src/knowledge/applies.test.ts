import { describe, expect, test } from '@jest/globals';
import { foldCase } from '../diagnosis/index.ts';
import { caseOf, shipped, shippedFiles, shippedPack } from '../testing/shipped.ts';
import { assemblePack, compilePack, inScope, knownAs, matchSet, type PackFile } from './index.ts';

describe('scope down to model, version and year', () => {
  const match = { family: 'a.b', models: ['X1', 'X2'], versions: ['v2'], years: [2015, 2018] as [number, number] };
  test.each([
    ['all parts fit', { family: 'a.b', model: 'X2', version: 'v2', year: 2018 }, 'yes'],
    ['another model', { family: 'a.b', model: 'X3', version: 'v2', year: 2018 }, 'no'],
    ['a year too late', { family: 'a.b', model: 'X1', version: 'v2', year: 2019 }, 'no'],
    ['another family, the rest unread', { family: 'c.d' }, 'no'],
    ['the version isn’t read yet', { family: 'a.b', model: 'X1', year: 2016 }, 'unknown'],
    ['nothing is known', {}, 'unknown'],
  ])('%s', (_, set, expected) => expect(matchSet(match, set)).toBe(expected));

  test('a set not read well enough is neither shut out nor excepted', () => {
    expect(inScope({ only: [match] }, {})).toBe(true);
    expect(inScope({ only: [match] }, { family: 'c.d' })).toBe(false);
    expect(inScope({ except: [{ models: ['X1'], reason: { en: 'why' } }] }, {})).toBe(true);
    expect(inScope({ except: [{ models: ['X1'], reason: { en: 'why' } }] }, { model: 'X1' })).toBe(false);
  });

  test('the jig is left out for the model that shows no pattern without a bridge; done all the same, it counts less', () => {
    const set = { layout: 'oled', family: 'tessaluna.or2' };
    const codes = (model: string) =>
      foldCase(caseOf(['sound-dark'], [], { ...set, model }), shipped())
        .leftOut.filter(({ step }) => step.id === 'jig.oled')
        .map(({ code }) => code);
    expect(codes('OR2-55W')).toEqual(['other-set']);
    expect(codes('OR2-65')).not.toContain('other-set');
    const main = (model: string) => {
      const fold = foldCase(caseOf(['sound-dark'], ['jig.oled=clean-pattern'], { ...set, model }), shipped());
      return { probability: fold.assemblies.find(({ id }) => id === 'main')!.probability, doubts: fold.doubts.map(({ code }) => code) };
    };
    expect(main('OR2-55W').probability).toBeLessThan(main('OR2-65').probability);
    expect(main('OR2-55W').doubts).toContain('outside-scope');
  });

  test('a test whose tool isn’t at hand is left out and says so', () => {
    const input = caseOf(['lit-blank']);
    const fold = foldCase({ ...input, settings: { ...input.settings, tools: ['meter'] } }, shipped());
    const code = (id: string) => fold.leftOut.find(({ step }) => step.id === id)?.code;
    expect(code('picture.data')).toBe('tool-missing');
    expect(code('tcon.input')).toBeUndefined();
  });
});

describe('a layout made from another', () => {
  const extra = (layout: Record<string, unknown>): PackFile[] => [
    ...shippedFiles(),
    { path: 'layouts/zz.json', text: JSON.stringify(layout) },
  ];
  const head = { id: 'zz', name: { en: 'Made up' }, frequency: 'rare', source: 'made up for a test' };

  test('loses what hangs on the nodes it is without, and keeps the rest', () => {
    const pack = assemblePack(extra({ ...head, from: 'led-tcon', without: ['radio'] }));
    const made = pack.layouts.find(({ id }) => id === 'zz')!;
    const base = shipped().layouts.get('led-tcon')!;
    expect(made.assemblies).toEqual(base.assemblies.filter((id) => id !== 'radio'));
    expect(made.feeds.flat()).not.toContain('radio');
    expect(made.plan.places.radio).toBeUndefined();
    expect(made.proof.radio).toBeUndefined();
    expect(made.proof.power).toEqual(base.proof.power);
    expect(made.fixedList.some(({ of }) => of === 'radio')).toBe(false);
    const compiled = compilePack(pack);
    expect(compiled.faultsOf.get('zz')!.some(({ home }) => home === 'radio')).toBe(false);
    // Main's loads are pulled together: without a radio the speakers alone.
    expect(compiled.procedure(compiled.tests.get('loads-off')!, 'zz').pulled).toEqual(['speakers']);
    expect(shipped().procedure(shipped().tests.get('loads-off')!, 'led-tcon').pulled).toEqual(['speakers', 'radio']);
  });

  test.each([
    ['from nowhere', { ...head, from: 'no-such' }],
    ['from itself', { ...head, from: 'zz' }],
  ])('%s is refused', (_, layout) => expect(() => assemblePack(extra(layout))).toThrow(/unknown-id at layouts\/zz\.from/));

  test('an abstract one is not in the document', () => {
    expect(shippedPack().layouts.map(({ id }) => id)).not.toContain('shared');
  });
});

test('without a backlight, black is also what elsewhere is called lit and blank', () => {
  expect([...knownAs(['sound-dark'], shipped().layouts.get('oled'))].sort()).toEqual(['lit-blank', 'sound-dark']);
  expect([...knownAs(['sound-dark'], shipped().layouts.get('led-tcon'))]).toEqual(['sound-dark']);
});
