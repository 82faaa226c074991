/** What the stages share: the set as it stands on the bench, and whether something is there and carries. */
import type { BenchState } from '../bench.ts';
import type { Body } from '../body.ts';
import type { Build } from '../scene.ts';

/** A start by key, by remote, or by whichever works. */
export type Ask = 'none' | 'key' | 'remote' | 'any';

/** Loads of a healthy set, A at nominal volts (values from memory). */
export const loads = { standbyIdle: 0.15, standbyStart: 0.45, main: 1, tcon: 0.5, radio: 0.2, driver: 1.2, selfLit: 1.2 } as const;
/** A short pulls at least this, whatever the supply would give. */
export const shortOhms = 5;

/** What all stages ask of set and bench. */
export interface Surroundings {
  readonly build: Build;
  readonly body: Body;
  readonly bench: BenchState;
  readonly ask: Ask;
  /** The layout has it. */
  readonly has: (node: string) => boolean;
  readonly trait: (id: string) => boolean;
  readonly out: (node: string) => boolean;
  /** A node or harness carries: there or not of this layout, in its place, contacts good. */
  readonly linked: (harness: string, wire?: 'all' | 'start' | 'rail') => boolean;
  readonly mainNode: string;
  readonly powerNode: string;
  /** What stands in main's place. */
  readonly board: 'jig' | 'universal' | undefined;
}

/** The surroundings of one look at the set. */
export function surroundingsOf(build: Build, body: Body, bench: BenchState, ask: Ask): Surroundings {
  const { layout, family } = build;
  const has = (node: string): boolean => layout.assemblies.includes(node);
  const out = (node: string): boolean => bench.out.has(node);
  const substitute = bench.fitted.get('main');
  return {
    build,
    body,
    bench,
    ask,
    has,
    out,
    trait: (id) => family?.traits[id] === 'yes',
    linked: (harness, wire = 'all') => {
      if (!has(harness)) return true;
      const contacts = body.contacts[harness];
      const good =
        contacts?.state !== 'open' ||
        (contacts.wire !== 'all' && contacts.wire !== wire) ||
        bench.tapped.has(harness) ||
        (bench.cleaned.has(harness) && contacts.cleanHeals);
      return !out(harness) && good;
    },
    mainNode: layout.merges.main ?? 'main',
    powerNode: layout.merges.power ?? 'power',
    board: substitute === 'jig' || substitute === 'universal' ? substitute : undefined,
  };
}
