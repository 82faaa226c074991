/** Which tests this set offers now, what each takes from here, and why the others are left out. */
import { inScope, type CompiledPack, type Procedure, type TestDefinition } from '../../knowledge/index.ts';
import type { Settings } from '../../ledger/index.ts';
import type { Belief } from '../belief/belief.ts';
import { holds } from '../evidence/conditions.ts';
import { identityOf, notInBook, testKey } from '../evidence/interpretation.ts';
import { rounded } from '../belief/posterior.ts';
import { circumstancesIn } from '../evidence/rows.ts';
import { effortToReach, type Effort } from './steps.ts';

/** Why a test is not on the list of steps. */
export const leftOutCodes = [
  'answered',
  'not-possible',
  'could-not-change',
  'other-symptom',
  'other-set',
  'tool-missing',
  'follows',
  'pointless',
  'code-first',
  'no-code',
  'reading-first',
  'glass-cracked',
] as const;
/** One of `leftOutCodes`. */
export type LeftOutCode = (typeof leftOutCodes)[number];

/** A test as it could be done now, on one object where it needs one. */
export interface Offer {
  readonly key: string;
  readonly test: TestDefinition;
  readonly of: string | undefined;
  readonly procedure: Procedure;
  /** The way there and the test itself, minutes. */
  readonly effort: Effort;
  readonly stage: number;
  readonly left: LeftOutCode | undefined;
}

/** Objects of one test worth weighing (reseat which cable, swap which board). */
const objectsOffered = 4;

/** Every test of a layout as it could be done now; one that needs an object comes once for each of the likeliest objects. */
export function offersOf(belief: Belief, compiled: CompiledPack, settings: Settings, layoutId: string): Offer[] {
  return (compiled.testsOf.get(layoutId) ?? []).flatMap((test) =>
    (test.of?.required ? likeliestObjects(test, belief, compiled, layoutId) : [undefined]).map((of) =>
      offerOf(test, of, belief, compiled, settings, layoutId),
    ),
  );
}

/** One test on one object: effort in minutes, what it needs, and why it would be left out, if it would. */
export function offerOf(
  test: TestDefinition,
  of: string | undefined,
  belief: Belief,
  compiled: CompiledPack,
  settings: Settings,
  layoutId: string,
): Offer {
  const procedure = compiled.procedure(test, layoutId, of, belief.interpretation.family);
  const reach = effortToReach(procedure, belief.interpretation.state, compiled);
  const key = testKey(test.id, of);
  return {
    key,
    test,
    of,
    procedure,
    effort: { handsOn: test.minutes + reach.handsOn, wait: procedure.waitMinutes + reach.wait },
    stage: procedure.stage,
    left: whyLeftOut(test, key, belief, compiled, settings, layoutId),
  };
}

function whyLeftOut(
  test: TestDefinition,
  key: string,
  { interpretation: seen, askAgain }: Belief,
  compiled: CompiledPack,
  settings: Settings,
  layoutId: string,
): LeftOutCode | undefined {
  const now = circumstancesIn(layoutId, seen, compiled);
  if (seen.answered.has(key) && !askAgain.has(key)) return 'answered';
  if (seen.impossible.has(key)) return 'not-possible';
  if (!inScope(test.scope, identityOf(seen))) return 'other-set';
  if (test.scope.symptoms && !holds({ symptoms: test.scope.symptoms }, now)) return 'other-symptom';
  if (test.speaksOnlyIf.some(({ needs }) => !holds(needs, now))) return 'could-not-change';
  if (seen.follow.has(test.id)) return 'follows';
  if (test.tools.some((tool) => settings.tools !== undefined && !settings.tools.includes(tool))) return 'tool-missing';
  if (seen.cracked && compiled.pack.cautions.some(({ id, notCracked }) => notCracked && test.cautions.includes(id))) return 'glass-cracked';
  // An answer that couldn't be told is no reading.
  if (test.first?.some((one) => !seen.answered.has(one.test))) return 'reading-first';
  if (comparesCodes(test) && !seen.symptoms.has('blinking') && !seen.blinkRead) return 'no-code';
  if (test.disturbsCode && seen.symptoms.has('blinking') && !seen.blinkRead) return 'code-first';
  return undefined;
}

/** A test whose answers are all about the blink code: a set that doesn't count has none to compare. */
const comparesCodes = ({ observe }: TestDefinition): boolean =>
  observe.outcomes.every(({ seen }) => seen === undefined || seen.every(({ code }) => code !== undefined));

function likeliestObjects(test: TestDefinition, belief: Belief, compiled: CompiledPack, layoutId: string): string[] {
  const proof = objectsOfProof(test, belief, compiled, layoutId);
  return compiled
    .objectsOf(test, layoutId)
    .map((id) => ({ id, probability: rounded(belief.assemblies.get(id) ?? 0) }))
    .filter((one) => one.probability > 0)
    .sort((a, b) => b.probability - a.probability || (a.id < b.id ? -1 : 1))
    .filter((one, index) => index < objectsOffered || proof.has(one.id))
    .map((one) => one.id);
}

/** What the proof of the likeliest assembly wants this test done on, however unlikely that is itself. */
function objectsOfProof(test: TestDefinition, belief: Belief, compiled: CompiledPack, layoutId: string): ReadonlySet<string> {
  const [top] = [...belief.assemblies].filter(([id]) => id !== notInBook).sort((a, b) => b[1] - a[1]);
  const ways = compiled.layouts.get(layoutId)?.proof[top?.[0] ?? '']?.anyOf ?? [];
  return new Set(ways.flat().flatMap((item) => ('test' in item && item.test === test.id && item.of !== undefined ? [item.of] : [])));
}
