/**
 * What a symptom alone says of each assembly, held against the ranges that experts would accept (knowledge/reference-shares.json, "common
 * practice, no source"). They are results, reached through mechanisms and how common faults are; nothing is entered from them.
 */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { believe } from '../diagnosis/index.ts';
import { defaultSettings } from '../ledger/index.ts';
import { shipped } from '../testing/shipped.ts';

interface Shares {
  readonly always: { readonly 'not-in-the-book': readonly [number, number] };
  readonly shares: Readonly<Record<string, Readonly<Record<string, Readonly<Record<string, readonly [number, number]>>>>>>;
}
const { always, shares } = JSON.parse(
  readFileSync(new URL('../../../../knowledge/reference-shares.json', import.meta.url), 'utf8'),
) as Shares;

const after = (layout: string, complaint: string): ReadonlyMap<string, number> =>
  believe(
    {
      set: { layout },
      settings: defaultSettings,
      entries: [
        {
          id: 'told',
          seq: 1,
          at: '2026-01-01T00:00:00Z',
          by: 'bench',
          basedOn: 0,
          body: { kind: 'symptom.reported', v: 2, symptoms: [complaint] },
        },
      ],
    },
    shipped(),
  ).assemblies;

/** Cables, screws and plug-in loads may be rarer: a rare fault with a rare reaction. */
const never0 = (id: string): boolean => id.startsWith('harness.') || ['speakers', 'radio', 'fans'].includes(id);

describe.each(Object.entries(shares))('%s', (layout, complaints) => {
  test.each(Object.entries(complaints))('%s', (complaint, ranges) => {
    const probabilities = after(layout, complaint);
    const missed = Object.entries(ranges)
      .map(([assembly, [least, most]]) => ({ assembly, least, most, share: Math.round((probabilities.get(assembly) ?? 0) * 1e4) / 1e4 }))
      .filter(({ least, most, share }) => share < least || share > most);
    expect(missed).toEqual([]);
    const unknown = probabilities.get('not-in-the-book') ?? 0;
    expect(unknown).toBeGreaterThanOrEqual(always['not-in-the-book'][0]);
    expect(unknown).toBeLessThanOrEqual(always['not-in-the-book'][1]);
  });
});

test('every board, strips, panel, keys and the outside keep two in a thousand under every symptom a class of theirs allows', () => {
  const pack = shipped().pack;
  const low: string[] = [];
  for (const layout of pack.layouts) {
    for (const { id: complaint } of pack.symptoms) {
      // A self-lit screen shows it as another symptom.
      if (layout.showsAs[complaint] !== undefined) continue;
      const probabilities = after(layout.id, complaint);
      const possible = new Set(
        (shipped().faultsOf.get(layout.id) ?? [])
          .filter(({ id }) => (shipped().symptomLikelihoods(layout.id, id)[shipped().symptomIds.indexOf(complaint)] ?? 0) > 0)
          .map(({ assembly }) => assembly),
      );
      for (const id of possible) {
        const share = probabilities.get(id) ?? 0;
        if (never0(id) ? share <= 0 : share < 0.002) low.push(`${layout.id} ${complaint} ${id} ${share.toFixed(5)}`);
      }
    }
  }
  expect(low).toEqual([]);
});
