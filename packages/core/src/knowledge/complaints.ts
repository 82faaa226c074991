/**
 * P(symptom | fault): from what the fault does to the set, and what sets of the world then show. A row of the fault's own stands above its
 * classes. What a class doesn't name its physics forbids; what it names is never rarer than the least possible.
 */
import { rowNumbers } from './scale.ts';
import type { Fault, Layout, Pack } from './schema.ts';

/** Of a thousand; nothing possible is rarer. */
export const leastPossible = 5;

/** Probabilities over `symptomIds`, summing to 1; 0 for what is impossible. `mix` in percent. */
export function complaintsOfMix(pack: Pack, layout: Layout, mix: Readonly<Record<string, number>>): number[] {
  const ids = pack.symptoms.map(({ id }) => id);
  const row = ids.map(() => 0);
  for (const [classId, percent] of Object.entries(mix)) {
    const found = pack.classes.find(({ id }) => id === classId);
    for (const [symptom, share] of Object.entries(found?.layouts?.[layout.id] ?? found?.shares ?? {})) {
      const place = ids.indexOf(symptom);
      if (place >= 0) row[place] = (row[place] ?? 0) + (percent / 100) * (share / 1000);
    }
  }
  return lifted(asShown(row, ids, layout));
}

/** The same from a fault's own row of words. */
export function complaintsOfRow(pack: Pack, layout: Layout, symptoms: Readonly<Record<string, string>>): number[] {
  const ids = pack.symptoms.map(({ id }) => id);
  return asShown([...rowNumbers(pack.scale, ids, symptoms).likelihoods], ids, layout);
}

/** Variants of a fault's symptoms: where nothing of the family is known, then those of `variantsOf` in order. */
export function complaintsOf(pack: Pack, layout: Layout, fault: Fault): number[][] {
  const plain = fault.symptoms ? complaintsOfRow(pack, layout, fault.symptoms) : complaintsOfMix(pack, layout, fault.does ?? {});
  return [
    plain,
    ...variantsOf(fault).map((one) =>
      'does' in one ? complaintsOfMix(pack, layout, one.does) : complaintsOfRow(pack, layout, one.symptoms),
    ),
  ];
}

/** What stands above the plain symptoms where its traits hold, the first that does. */
export const variantsOf = (fault: Pick<Fault, 'doesWhen' | 'symptomsWhen'> | undefined) => [
  ...(fault?.doesWhen ?? []),
  ...(fault?.symptomsWhen ?? []),
];

/** Self-lit screens show some things as others. */
function asShown(row: number[], ids: readonly string[], layout: Layout): number[] {
  for (const [elsewhere, here] of Object.entries(layout.showsAs)) {
    const from = ids.indexOf(elsewhere);
    const to = ids.indexOf(here);
    if (from < 0 || to < 0) continue;
    row[to] = (row[to] ?? 0) + (row[from] ?? 0);
    row[from] = 0;
  }
  return row;
}

/** In a mix of classes a possible one may have fallen under the least: lifted, at the cost of the largest. */
function lifted(row: number[]): number[] {
  const least = leastPossible / 1000;
  const missing = row.reduce((sum, p) => sum + (p > 0 && p < least ? least - p : 0), 0);
  const top = row.indexOf(Math.max(...row));
  return row.map((p, index) => (index === top ? p - missing : p > 0 && p < least ? least : p));
}
