/** The project's own reference cases, and what of them is not met yet. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, test } from '@jest/globals';
import { InputRefused } from '../problems.ts';
import { knowledgeFolder, shipped } from '../testing/shipped.ts';
import { judgeCase, missName, parseReferenceCases, type Judged } from './index.ts';

const folder = path.join(knowledgeFolder, 'reference-cases');
const misses = 'known-misses.json';
const json = (file: string): unknown => JSON.parse(readFileSync(path.join(folder, file), 'utf8'));
const files = readdirSync(folder).filter((file) => file !== misses);
const cases = parseReferenceCases(files.map((name) => ({ name, document: json(name) })));
const known = new Set(json(misses) as string[]);
const judged: Judged[] = cases.flatMap((one) => judgeCase(one, shipped()));

describe('reference cases', () => {
  test('are as many and as demanding as they were written: a judge that never concludes fails', () => {
    expect(cases.length).toBeGreaterThanOrEqual(70);
    const wanted = cases.flatMap(({ expect: all }) => all);
    expect(wanted.filter((one) => one.what === 'verdict' && one.is === 'proven').length).toBeGreaterThanOrEqual(40);
    expect(wanted.filter((one) => one.what === 'verdict' && one.is === 'cleared').length).toBeGreaterThanOrEqual(40);
    const { layouts, symptomIds } = shipped();
    expect(new Set(cases.map((one) => one.set.layout))).toEqual(new Set(layouts.keys()));
    const told = JSON.stringify(cases.map(({ entries }) => entries));
    // What was added to the pack later needs no case of those days.
    for (const symptom of symptomIds.filter((id) => id !== 'bar-across'))
      expect([symptom, told.includes(`"${symptom}"`)]).toEqual([symptom, true]);
  });

  test('hold, but for those on the list of known misses', () => {
    const missed = judged.filter(({ holds }) => !holds).map((one) => `${missName(one)} (${one.because} Found: ${one.found})`);
    expect(missed.filter((line) => !known.has(line.slice(0, line.indexOf(' ('))))).toEqual([]);
  });

  test('and the list has nothing on it that holds, or that nobody asks', () => {
    const open = new Set(judged.filter(({ holds }) => !holds).map(missName));
    expect([...known].filter((name) => !open.has(name))).toEqual([]);
  });
});

describe('a file of them', () => {
  const good = {
    id: 'a',
    story: 'x',
    set: { layout: 'oled' },
    entries: [],
    expect: [{ what: 'probability', of: ['main'], min: 0.1, because: 'y' }],
  };
  const read = (...list: object[]) =>
    parseReferenceCases([{ name: 'f', document: { format: 'veglia-told', version: 2, source: 's', cases: list } }]);
  test('is read', () => expect(read(good)).toHaveLength(1));
  test('of version 1 is read as the same, its odds as probability, its entries by their version', () => {
    const layout = (key: string): object => ({ layout: { [key]: { oled: 0.9, plasma: 0.1 } } });
    const first = {
      ...good,
      set: layout('odds'),
      entries: [{ body: { kind: 'layout.found', ...layout('odds') } }],
      expect: [{ what: 'odds', of: ['main'], min: 0.1, because: 'y' }],
    };
    const second = { ...good, set: layout('probabilities'), entries: [{ body: { kind: 'layout.found', v: 1, ...layout('odds') } }] };
    expect(parseReferenceCases([{ name: 'f', document: { format: 'veglia-told', version: 1, source: 's', cases: [first] } }])).toEqual(
      read(second),
    );
  });
  test.each<[string, object[]]>([
    ['an id given twice', [good, good]],
    ['an expectation beyond the end', [{ ...good, expect: [{ what: 'probability', of: ['main'], min: 0.1, after: 1, because: 'y' }] }]],
    ['no bound', [{ ...good, expect: [{ what: 'probability', of: ['main'], because: 'y' }] }]],
    ['no reason', [{ ...good, expect: [{ what: 'probability', of: ['main'], min: 0.1 }] }]],
    ['is and not', [{ ...good, expect: [{ what: 'verdict', of: 'main', is: 'proven', not: 'cleared', because: 'y' }] }]],
    ['a verdict nobody gives', [{ ...good, expect: [{ what: 'verdict', of: 'main', is: 'guilty', because: 'y' }] }]],
    ['neither first nor within', [{ ...good, expect: [{ what: 'next', because: 'y' }] }]],
  ])('with %s is refused', (_, list) => expect(() => read(...list)).toThrow(InputRefused));
  test('an expectation that fails says what was found', () => {
    const [one] = read({ ...good, expect: [{ what: 'verdict', of: 'main', is: 'proven', because: 'y' }] });
    const [verdict] = one ? judgeCase(one, shipped()) : [];
    expect(verdict).toMatchObject({
      holds: false,
      asked: 'verdict main is proven',
      after: 0,
      found: expect.stringContaining('suspect at') as unknown,
    });
  });
});
