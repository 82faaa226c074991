/** The row of a list says what the explained fold says, at a fraction of its price. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from '@jest/globals';
import { caseOf, knowledgeFolder, shipped, type Told } from '../../testing/shipped.ts';
import { cardOf, foldCase } from '../index.ts';

interface ToldCase {
  readonly id: string;
  readonly set: Record<string, unknown>;
  readonly entries: readonly { readonly body: Record<string, unknown> }[];
}
const folder = path.join(knowledgeFolder, 'reference-cases');
const cases = readdirSync(folder)
  .filter((file) => file !== 'known-misses.json')
  .flatMap((file) => (JSON.parse(readFileSync(path.join(folder, file), 'utf8')) as { cases: ToldCase[] }).cases)
  // Every third: each costs two settled searches.
  .filter((_, index) => index % 3 === 0);

test.each(cases.map((one) => [one.id, one] as const))('%s', (_, { set, entries }) => {
  const input = caseOf(
    [],
    entries.map(({ body }): Told => body),
    set,
  );
  const card = cardOf(input, shipped());
  const fold = foldCase(input, shipped());
  const [top] = fold.assemblies;
  const [next] = fold.next;
  expect(card.top).toEqual({ id: top?.id, odds: top?.odds, verdict: top?.verdict });
  expect(card.next).toEqual({ kind: next?.kind, id: next?.id, ...(next?.of === undefined ? {} : { of: next.of }) });
  expect([card.layout, card.stage, card.plugged]).toEqual([fold.set.layout, fold.set.stageId, fold.set.plugged]);
});

test('some cases were compared', () => expect(cases.length).toBeGreaterThan(20));
