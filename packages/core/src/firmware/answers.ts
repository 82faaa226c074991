/** What steps on a memory say of the fault: the pack names, beside an answer, the results that say the same, and the repair a flash amounts to. */
import type { CompiledPack, Repair, TestDefinition } from '../knowledge/index.ts';
import type { Body, BodyOf, FlashDid } from '../ledger/index.ts';
import { flashFindings, foldFlash, type FlashSession } from './session.ts';

/** What a step amounts to. */
export interface FlashMeaning {
  readonly tests: readonly { readonly test: string; readonly outcome: string }[];
  readonly repair?: { readonly repair: string; readonly result: BodyOf<'repair.done'>['result'] };
}

/** What a pack names work on a memory by: an eMMC wears out in a way of its own. */
export const flashInstruments = ['flash-chip', 'flash-emmc'] as const;
/** Results of a session that a pack can name. */
export const flashAnswering = ['chip-found', 'chip-dead', 'chip-failing', 'reads-equal'] as const;

const instrumentOf = ({ opened }: FlashSession): (typeof flashInstruments)[number] =>
  opened.memory === 'emmc' ? 'flash-emmc' : 'flash-chip';

const resultOf = { starts: 'cured', 'no-change': 'unchanged', failed: 'changed' } as const;

/** Findings that say something of the fault. */
function resultsOf(session: FlashSession): (typeof flashAnswering)[number][] {
  const found = session.did.some((one) => one.step === 'identified' && one.of === 'this' && one.result === 'found');
  const says = flashFindings(session).filter((one) => one === 'chip-dead' || one === 'chip-failing' || one === 'reads-equal');
  // What a failing chip gives cold is its content, no proof that it is good.
  const failing = says.includes('chip-failing');
  return [...(found ? (['chip-found'] as const) : []), ...says.filter((one) => !failing || one !== 'reads-equal')];
}

/** Own content onto a new chip, or other content; undefined where nothing was written, or only the same again. */
function written({ opened, did, areas }: FlashSession): Repair['flashes'] {
  if (opened.plan === 'keep-only') return undefined;
  if (opened.plan === 'ready-written' || opened.plan === 'move')
    return did.some(({ step }) => step === 'fitted') ? 'other-content' : undefined;
  const chosen = areas.flatMap((area) => area.chosen ?? []);
  if (chosen.length === 0) return undefined;
  if (chosen.some(({ source }) => source !== 'own-set')) return 'other-content';
  return opened.plan === 'onto-new' ? 'own-content-new-chip' : undefined;
}

/** What the last of these steps adds to what those before it said; `repairs`: those of the set’s layout. */
export function flashMeaning(did: readonly FlashDid[], tests: Iterable<TestDefinition>, repairs: Iterable<Repair>): FlashMeaning {
  const after = foldFlash('', did);
  if (!after) return { tests: [] };
  const before = foldFlash('', did.slice(0, -1));
  const known = new Set<string>(before ? resultsOf(before) : []);
  const fresh: string[] = resultsOf(after).filter((one) => !known.has(one));
  const instrument = instrumentOf(after);
  const answers = [...tests].flatMap(({ id, observe }) =>
    observe.outcomes
      .filter(({ by }) => by?.some((one) => one.instrument === instrument && fresh.includes(one.finding)))
      .slice(0, 1)
      .map((outcome) => ({ test: id, outcome: outcome.id })),
  );
  const last = did.at(-1);
  const content = last?.step === 'started' ? written(after) : undefined;
  const repair = content === undefined ? undefined : [...repairs].find(({ flashes }) => flashes === content);
  return {
    tests: answers,
    ...(repair && last?.step === 'started' ? { repair: { repair: repair.id, result: resultOf[last.result] } } : {}),
  };
}

/**
 * A step as it is written down: itself, the tests it answers, the repair it amounts to. `before`: the steps of its session so far; `wordsOf`: an answer as
 * it is shown to whoever works on the set.
 */
export function flashBodies(
  session: string,
  did: FlashDid,
  before: readonly FlashDid[],
  { compiled, layout }: { readonly compiled: CompiledPack; readonly layout: string | undefined },
  wordsOf: (test: string, outcome: string) => { readonly test: string; readonly outcome: string },
): Body[] {
  const fitting = [...compiled.tests.values()].filter((test) => compiled.fits(test, layout ?? ''));
  const { tests, repair } = flashMeaning([...before, did], fitting, compiled.repairsOf.get(layout ?? '') ?? []);
  return [
    { kind: 'flash.step', v: 1, session, did },
    ...tests.map(({ test, outcome }): Body => ({
      kind: 'test.answered',
      v: 2,
      test,
      outcome,
      sure: 'sure',
      walked: true,
      words: wordsOf(test, outcome),
    })),
    ...(repair ? [{ kind: 'repair.done' as const, v: 2 as const, ...repair, walked: true }] : []),
  ];
}
