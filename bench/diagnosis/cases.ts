/** Cases to play: layout by how common it is, family in turn, fault by the pack's priors. */
import type { CompiledPack, PlacedFault } from '@veglia/core';
import { randomFrom, seedOf } from '@veglia/simulators';

export interface Case {
  readonly layoutId: string;
  readonly familyId: string | undefined;
  readonly fault: PlacedFault;
  readonly seed: number;
}

export function drawCases(compiled: CompiledPack, count: number, seed: number): Case[] {
  const { layouts, families, scale } = compiled.pack;
  const weights = layouts.map(({ frequency }) => scale.frequency[frequency] ?? 1);
  return Array.from({ length: count }, (_, index) => {
    const random = randomFrom(seedOf(seed, `case ${index}`));
    // Rare layouts are drawn more often than they come, or they would hardly be measured.
    const layout = pickBy(layouts, weights.map(Math.sqrt), random());
    const own = families.filter((family) => family.layouts.includes(layout.id));
    const family = own[Math.floor(random() * own.length)];
    const fault = pickBy(compiled.faultsOf.get(layout.id) ?? [], compiled.priors.get(layout.id) ?? [], random());
    return { layoutId: layout.id, familyId: family?.id, fault, seed: Math.floor(random() * 2 ** 31) };
  });
}

function pickBy<T>(items: readonly T[], weights: readonly number[], at: number): T {
  let left = at * weights.reduce((a, b) => a + b, 0);
  const found = items.find((_, index) => (left -= weights[index] ?? 0) < 0) ?? items.at(-1);
  if (found === undefined) throw new Error('nothing to pick from');
  return found;
}
