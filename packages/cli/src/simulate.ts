/** `veglia simulate`: a whole case played on the simulated set, or one test at a time for an outside player. */
import { readFile, writeFile } from 'node:fs/promises';
import { defaultSettings, InputRefused, type CompiledPack, type Policy, type Problem } from '@veglia/core';
import {
  atOnce,
  drawWorldCase,
  fixedList,
  information,
  play,
  SimulatedSet,
  simulatedFaults,
  simulatedOpponent,
  worldErrors,
  type Way,
  type World,
} from '@veglia/simulators';
import { z } from 'zod';

/** Options of `veglia simulate`. */
export interface SimulateOptions {
  readonly layout?: string;
  readonly family?: string;
  readonly fault?: readonly string[];
  readonly seed: number;
  readonly policy: Policy;
  readonly errors: number;
  readonly do?: string;
  readonly repair?: string;
  readonly session?: string;
  /** A set of a workshop the pack hasn't seen, drawn by the seed. */
  readonly world?: World;
}

/** What an outside player keeps between calls: the set, and what was done to it. Answers follow from it alone. */
const sessionSchema = z.strictObject({
  format: z.literal('veglia-session'),
  version: z.literal(1),
  layout: z.string(),
  family: z.string().optional(),
  faults: z.array(z.string()),
  seed: z.number().int(),
  errors: z.number().min(0).max(1),
  /** Repairs in order: each changes the set for good. */
  repairs: z.array(z.string()),
});
type Session = z.infer<typeof sessionSchema>;

/** Information stops asking at probabilities that a bench would act on (value of ours). */
const ways: Readonly<Record<Policy, Way>> = { cost: atOnce, information: information(0.8), fixed: fixedList() };

/** A case file, or with --do or --repair one answer. Throws InputRefused on ids nobody knows and on a session that can't be read. */
export async function simulate(options: SimulateOptions, compiled: CompiledPack): Promise<unknown> {
  if (options.world !== undefined) return playDrawn(options.world, options, compiled);
  const session = await sessionOf(options, compiled);
  const set = setOf(session, compiled);
  if (options.do !== undefined || options.repair !== undefined) {
    const answer = options.do === undefined ? renew(set, session, options.repair ?? '', compiled) : ask(set, session, options.do, compiled);
    if (options.session !== undefined) await writeFile(options.session, `${JSON.stringify(session, null, 2)}\n`);
    return answer;
  }
  return caseFileOf(
    set,
    { layout: session.layout, ...(session.family === undefined ? {} : { family: session.family }) },
    session,
    options,
    compiled,
  );
}

/** Played to its end, as a case file; the last note says what was wrong. */
function caseFileOf(
  set: SimulatedSet,
  facts: { readonly layout: string; readonly family?: string },
  { faults, seed, errors }: Pick<Session, 'faults' | 'seed' | 'errors'>,
  { policy }: Pick<SimulateOptions, 'policy'>,
  compiled: CompiledPack,
): object {
  const { entries, ending, costMinor, minutes } = play({
    opponent: simulatedOpponent(set, errors),
    way: ways[policy],
    compiled,
    set: facts,
    settings: defaultSettings,
    seed,
  });
  const told = { ending, costMinor: Math.round(costMinor), minutes, faults, seed };
  const note = { body: { kind: 'note.added', v: 1, text: `Played on the simulated set: ${JSON.stringify(told)}` } };
  return {
    format: 'veglia-case',
    version: 2,
    pack: { hash: compiled.hash },
    set: facts,
    settings: defaultSettings,
    entries: [...entries.map(({ body }) => ({ body })), note],
  };
}

/** The seed is the number of the case; the world itself is always the same one. */
function playDrawn(world: World, options: SimulateOptions, compiled: CompiledPack): object {
  const layouts = compiled.pack.layouts.map((layout) => ({ layout, weight: compiled.pack.scale.frequency[layout.frequency] ?? 1 }));
  const drawn = drawWorldCase(options.seed, world, 1, layouts, compiled.pack.families);
  const layout = compiled.layouts.get(drawn.layoutId);
  if (!layout) throw new RangeError(`${drawn.layoutId} isn't in the pack it was drawn from`);
  const facts = { layout: layout.id, ...(drawn.familyId === undefined ? {} : { family: drawn.familyId }) };
  const told = { faults: [...drawn.faults], seed: drawn.seed, errors: worldErrors };
  return caseFileOf(new SimulatedSet({ ...drawn, layout }), facts, told, options, compiled);
}

async function sessionOf(options: SimulateOptions, compiled: CompiledPack): Promise<Session> {
  const kept = options.session === undefined ? undefined : await readFile(options.session, 'utf8').catch(() => undefined);
  if (kept !== undefined) {
    const parsed = sessionSchema.safeParse(jsonOf(kept, options.session ?? ''));
    if (!parsed.success)
      throw new InputRefused(
        parsed.error.issues.map((issue): Problem => ({
          code: 'schema',
          where: `session.${issue.path.join('.')}`,
          expected: issue.message,
        })),
      );
    return parsed.data;
  }
  const problems: Problem[] = [];
  const layout = compiled.layouts.get(options.layout ?? '');
  if (!layout) problems.push({ code: 'unknown-id', where: '--layout', value: options.layout ?? '', expected: 'layout' });
  const family = options.family === undefined ? undefined : compiled.families.get(options.family);
  if (options.family !== undefined && (!family || (layout && !family.layouts.includes(layout.id)))) {
    problems.push({ code: 'unknown-id', where: '--family', value: options.family, expected: `family of ${layout?.id ?? 'that layout'}` });
  }
  const faults = (options.fault ?? []).map((id) => compiled.currentId(id));
  const own = new Set(layout ? (compiled.faultsOf.get(layout.id) ?? []).map(({ id }) => id) : []);
  for (const id of faults) {
    if (!simulatedFaults.includes(id) || (layout && !own.has(id)))
      problems.push({ code: 'unknown-id', where: '--fault', value: id, expected: `fault of ${layout?.id ?? 'that layout'}` });
  }
  if (faults.length === 0) problems.push({ code: 'unknown-id', where: '--fault', value: '', expected: 'fault' });
  if (problems.length > 0 || !layout) throw new InputRefused(problems);
  return {
    format: 'veglia-session',
    version: 1,
    layout: layout.id,
    ...(family ? { family: family.id } : {}),
    faults,
    seed: options.seed,
    errors: options.errors,
    repairs: [],
  };
}

function jsonOf(text: string, where: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new InputRefused([{ code: 'not-json', where, expected: (error as Error).message }]);
  }
}

function setOf(session: Session, compiled: CompiledPack): SimulatedSet {
  const layout = compiled.layouts.get(session.layout);
  if (!layout) throw new InputRefused([{ code: 'unknown-id', where: 'session.layout', value: session.layout, expected: 'layout' }]);
  const set = new SimulatedSet({ layout, family: compiled.families.get(session.family ?? ''), faults: session.faults, seed: session.seed });
  for (const id of session.repairs) {
    const repair = compiled.repairsOf.get(session.layout)?.find((one) => one.id === id);
    if (repair) set.repair(repair);
  }
  return set;
}

/** `test` or `test:object`. */
function ask(set: SimulatedSet, session: Session, wanted: string, compiled: CompiledPack): object {
  const [id = '', of] = wanted.split(':');
  const test = compiled.tests.get(compiled.currentId(id));
  if (!test || !compiled.fits(test, session.layout))
    throw new InputRefused([{ code: 'unknown-id', where: '--do', value: id, expected: `test of ${session.layout}` }]);
  const objects = compiled.objectsOf(test, session.layout);
  if (test.of?.required && (of === undefined || !objects.includes(of))) {
    throw new InputRefused([{ code: 'unknown-id', where: '--do', value: of ?? '', expected: `object of ${id}: ${objects.join(', ')}` }]);
  }
  const { outcome, readings } = set.perform(test, of, session.errors);
  const complaint = set.complaint();
  return { complaint: complaint ?? null, blink: set.blink() ?? null, test: id, ...(of === undefined ? {} : { of }), outcome, readings };
}

function renew(set: SimulatedSet, session: Session, id: string, compiled: CompiledPack): object {
  const repair = compiled.repairsOf.get(session.layout)?.find((one) => one.id === compiled.currentId(id));
  if (!repair) throw new InputRefused([{ code: 'unknown-id', where: '--repair', value: id, expected: `repair of ${session.layout}` }]);
  const result = set.repair(repair);
  session.repairs.push(repair.id);
  return { repair: repair.id, result, complaint: set.complaint() ?? null };
}
