/** What follows from readings further up or down the chain: those tests have nothing more to say. */
import { outcomesThatFollow, type CompiledPack } from '../../knowledge/index.ts';
import type { Entry } from '../../ledger/index.ts';

/** What a test would say, as it follows from a reading there is. */
export interface Following {
  readonly outcomes: ReadonlySet<string>;
  /** Answered all the same, it counts. */
  readonly anotherLook: boolean;
}

/**
 * Test -> the outcomes that follow. A reading counts where all sure looks at it since `epoch` agree; what follows from it has consequences
 * of its own, unless a reading says otherwise.
 */
export function whatFollows(
  live: readonly Entry[],
  epoch: number,
  compiled: CompiledPack,
  layoutId?: string,
): ReadonlyMap<string, Following> {
  const seen = new Map<string, Set<string>>();
  for (const { seq, body } of live) {
    if (seq < epoch || body.kind !== 'test.answered' || body.sure !== 'sure') continue;
    const test = compiled.currentId(body.test);
    seen.set(test, (seen.get(test) ?? new Set()).add(body.outcome));
  }
  const here = compiled.pack.consequences.filter(({ layouts }) => !layouts || (layoutId !== undefined && layouts.includes(layoutId)));
  const found = new Map<string, Following>();
  const within = (some: ReadonlySet<string>, all: Iterable<string>): boolean => [...some].every((one) => new Set(all).has(one));
  const follow = (test: string, outcomes: ReadonlySet<string>, above: ReadonlySet<string>): void => {
    for (const one of here) {
      if (one.after.test !== test || !within(outcomes, one.after.outcomes)) continue;
      for (const [further, says] of outcomesThatFollow(one)) {
        // What two tests say of each other counts once: of the one that was read first.
        if (above.has(further) || found.has(further)) continue;
        found.set(further, { outcomes: new Set(says), anotherLook: one.anotherLook ?? false });
        const read = seen.get(further);
        if (!read || within(read, says)) follow(further, read ?? new Set(says), new Set([...above, further]));
      }
    }
  };
  for (const [test, outcomes] of seen) {
    const known = found.get(test)?.outcomes;
    if (!known || !within(outcomes, known)) follow(test, outcomes, new Set([test]));
  }
  return found;
}
