/** What sure answers say was seen with one's own eyes: a crack, a picture, the end of the symptom. */
import type { CompiledPack, Seen, TestDefinition } from '../../knowledge/index.ts';
import type { Body, BodyOf, Entry } from '../../ledger/index.ts';

/** A loan goes back to the shelf: what it cured is proven, and the set is not yet whole. */
const isLoan = (test: TestDefinition | undefined): boolean => test?.do.some((step) => 'fit' in step) ?? false;

/** The last that was done ended the symptom for good: by a repair, or by a step that left the set whole. */
export function isCured(live: readonly Entry[], compiled: CompiledPack): boolean {
  const last = live.findLast(({ body }) => ['test.answered', 'repair.done', 'symptom.reported'].includes(body.kind))?.body;
  if (last?.kind === 'repair.done') return last.result === 'cured';
  return last?.kind === 'test.answered' && curingStep(last, compiled) !== undefined;
}

/** The step of an answer that ended the symptom and left the set whole. */
export function curingStep({ test, outcome, sure }: BodyOf<'test.answered'>, compiled: CompiledPack): TestDefinition | undefined {
  const step = outcome === 'cured' && sure === 'sure' ? compiled.tests.get(compiled.currentId(test)) : undefined;
  return isLoan(step) ? undefined : step;
}

/** A crack in the glass was seen, and the glass wasn't replaced since. */
export const isCracked = (live: readonly Entry[], compiled: CompiledPack): boolean =>
  live.findLastIndex(({ body }) => showsCrack(body, compiled)) > live.findLastIndex(({ body }) => renewsGlass(body, compiled));

function showsCrack(body: Body, compiled: CompiledPack): boolean {
  if (body.kind === 'job.opened') return body.condition?.includes('crack') ?? false;
  return seenIn(body, compiled, ({ glass }) => glass?.includes('cracked') ?? false);
}

const renewsGlass = (body: Body, compiled: CompiledPack): boolean =>
  body.kind === 'repair.done' &&
  body.result !== 'not-tried' &&
  compiled.pack.repairs.some(({ id, question }) => id === compiled.currentId(body.repair) && question);

/** The bench saw a picture on the glass by itself, good or bad; what is left over once "none" has an outcome of its own is a picture too. */
export function showsPicture(body: Body, compiled: CompiledPack): boolean {
  if (body.kind === 'symptom.reported')
    return body.seen === true && compiled.pack.symptoms.some(({ id, picture }) => picture && body.symptoms.includes(id));
  if (body.kind !== 'test.answered' || body.sure !== 'sure') return false;
  const outcomes = compiled.tests.get(compiled.currentId(body.test))?.observe.outcomes ?? [];
  const pictures = (id: string): string[] => outcomes.find((one) => one.id === id)?.seen?.flatMap(({ picture }) => picture ?? []) ?? [];
  const own = pictures(body.outcome);
  if (own.length > 0) return own.every((one) => one !== 'none' && one !== 'faint');
  const isRest = outcomes.some(({ id, seen }) => id === body.outcome && seen === undefined);
  return isRest && outcomes.some(({ id }) => pictures(id).includes('none'));
}

/** Whether a sure answer stands for something seen. */
function seenIn(body: Body, compiled: CompiledPack, what: (seen: Seen) => boolean): boolean {
  if (body.kind !== 'test.answered' || body.sure !== 'sure') return false;
  const outcome = compiled.tests.get(compiled.currentId(body.test))?.observe.outcomes.find(({ id }) => id === body.outcome);
  return outcome?.seen?.some(what) ?? false;
}
