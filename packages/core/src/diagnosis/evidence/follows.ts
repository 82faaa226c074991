/** What follows from readings further up the chain: those tests have nothing more to say. */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { Entry } from '../../ledger/index.ts';

/** Test -> the outcome that follows. A reading counts where all sure looks at it since `epoch` agree. */
export function whatFollows(live: readonly Entry[], epoch: number, compiled: CompiledPack): ReadonlyMap<string, string> {
  const sure = live.flatMap(({ seq, body }) => (seq >= epoch && body.kind === 'test.answered' && body.sure === 'sure' ? [body] : []));
  const holds = compiled.pack.consequences.filter(({ after }) => {
    const looks = sure.filter((body) => compiled.currentId(body.test) === after.test);
    return looks.length > 0 && looks.every(({ outcome }) => after.outcomes.includes(outcome));
  });
  return new Map(holds.flatMap(({ then }) => Object.entries(then)));
}
