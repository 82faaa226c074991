/** What was pressed, squeezed, warmed or chilled by hand, as the test it amounts to: told by the verbs of the pack's own procedures. */
import { hasPlace, type CompiledPack, type Layout, type Step, type TestDefinition } from '../../knowledge/index.ts';
import type { BodyOf } from '../../ledger/index.ts';

type Stimulus = BodyOf<'stimulus.tried'>;

const verbOf: Record<Stimulus['way'], 'tap' | 'squeeze' | 'warm' | 'chill'> = {
  touch: 'tap',
  press: 'tap',
  flex: 'tap',
  squeeze: 'squeeze',
  warm: 'warm',
  chill: 'chill',
};
/** Squeezing the panel is squeezing its frame. */
const standsFor: Record<string, string> = { panel: 'frame' };

/**
 * The answer a stimulus gives to a test whose only stimulus it is; undefined where the pack has none, or where it couldn't be told. A press
 * somewhere on a board that changes something speaks of the point pressed on in the test; one that changes nothing may have missed it.
 */
export function answerOf(
  { way, at, effect }: Stimulus,
  compiled: CompiledPack,
  layoutId: string,
): { readonly test: string; readonly of?: string; readonly outcome: string } | undefined {
  const layout = compiled.layouts.get(layoutId);
  if (!layout || effect === 'cant-tell') return undefined;
  for (const test of compiled.testsOf.get(layoutId) ?? []) {
    const reach = reachOf(test, verbOf[way], at, layout);
    if (!reach) continue;
    const outcome = outcomeOf(test, effect);
    if (!outcome || (reach === 'on-it' && !outcome.changed)) continue;
    return { test: test.id, ...(reach === 'object' ? { of: at } : {}), outcome: outcome.id };
  }
  return undefined;
}

function reachOf(test: TestDefinition, verb: string, at: string, layout: Layout): 'place' | 'object' | 'on-it' | undefined {
  const touched = test.do.flatMap((step: Step) =>
    (['tap', 'squeeze', 'warm', 'chill'] as const).flatMap((one) => {
      const place = (step as Partial<Record<typeof one, string>>)[one];
      return place === undefined ? [] : [{ verb: one, place }];
    }),
  );
  const [only] = touched;
  if (touched.length !== 1 || only?.verb !== verb) return undefined;
  if (only.place === '$of') return test.of?.options.includes(at) === true && hasPlace(layout, at) ? 'object' : undefined;
  if (only.place === at || only.place === standsFor[at]) return 'place';
  return layout.points[only.place]?.on === at ? 'on-it' : undefined;
}

/** Tests that ask whether anything changes, and tests that ask whether the symptom goes. */
function outcomeOf(test: TestDefinition, effect: Stimulus['effect']): { id: string; changed: boolean } | undefined {
  const { outcomes } = test.observe;
  const changes = outcomes.find(({ seen }) => seen?.some((one) => one.changes === true));
  const gone = outcomes.find(({ seen }) => seen?.some(({ complaint }) => complaint === 'gone'));
  const rest = outcomes.find(({ seen }) => seen === undefined);
  const moved = effect === 'came' || effect === 'went';
  if (changes) return moved ? { id: changes.id, changed: true } : rest && { id: rest.id, changed: false };
  if (!gone) return undefined;
  if (effect === 'went') return { id: gone.id, changed: true };
  return effect === 'stayed' && rest ? { id: rest.id, changed: false } : undefined;
}
