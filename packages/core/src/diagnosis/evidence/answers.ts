/** Answers to tests: which speak, and how far each is trusted. */
import {
  activeLevel,
  activeLowShare,
  inScope,
  silentOutcomes,
  type CompiledPack,
  type Family,
  type Procedure,
  type TestDefinition,
} from '../../knowledge/index.ts';
import { setOnArrival, stateAfter, type BodyOf, type Entry, type SetState } from '../../ledger/index.ts';
import { objectionsTo, stillOut } from '../../safety/index.ts';
import type { Following } from './follows.ts';
import { holds, type Circumstances } from './conditions.ts';
import { identityOf, testKey, type Doubt, type Interpretation, type Reading, type Unused, type UnusedCode } from './interpretation.ts';
import { circumstancesIn, plainOutcome } from './rows.ts';
import { answerOf } from './stimulus.ts';
import type { BlinkEntry } from './units.ts';

// Reliability, values of ours (the bench counts them once jobs close): how far an answer is trusted.
/** "Not certain": wrong one time in four. */
const thinkSoError = 0.25;
/** Outside its scope, or not done as designed: worth little, not nothing. */
const weakError = 0.35;
/** Nobody said whether an intermittent symptom was there. */
const unknownPresenceError = 0.15;

const silent: readonly string[] = silentOutcomes;

/** What an answer is read against. */
export interface Case {
  readonly compiled: CompiledPack;
  readonly family: Family | undefined;
  readonly identity: Interpretation['identity'];
  readonly layoutProbabilities: Readonly<Record<string, number>>;
  readonly layoutId: string | undefined;
  readonly symptoms: ReadonlySet<string>;
  readonly blinkReadings: readonly BlinkEntry[];
  readonly comesAndGoes: boolean;
  readonly epoch: number;
  readonly follows: ReadonlyMap<string, Following>;
  readonly unused: Unused[];
  readonly doubts: Doubt[];
}

/** Answers of a case by test and object. */
export interface Answers {
  readonly readings: ReadonlyMap<string, readonly Reading[]>;
  readonly answered: ReadonlySet<string>;
  readonly impossible: ReadonlySet<string>;
  readonly unclear: ReadonlySet<string>;
  /** Of the set, after all entries. */
  readonly state: SetState;
}

interface Known extends Case {
  /** Lines that were seen to move as the key was pressed: at which level they ask is known on the bench. */
  readonly moving: ReadonlySet<string>;
}

interface Marks {
  readonly answered: Set<string>;
  readonly impossible: Set<string>;
  readonly unclear: Set<string>;
}

/** Each answer against the set as it stood when it was written. */
export function readAnswers(live: readonly Entry[], given: Case): Answers {
  const { compiled, layoutId, doubts } = given;
  const facts: Known = { ...given, moving: linesSeenMoving(live, compiled) };
  const readings = new Map<string, Reading[]>();
  const marks: Marks = { answered: new Set(), impossible: new Set(), unclear: new Set() };
  let state = setOnArrival;
  for (const entry of live) {
    const { body } = entry;
    const answer = body.kind === 'test.answered' ? body : body.kind === 'stimulus.tried' ? stimulusAnswer(body, facts) : undefined;
    const reading = answer && readAnswer(entry, answer, state, marks, facts);
    if (answer && reading) {
      const key = testKey(compiled.currentId(answer.test), answer.of);
      readings.set(key, [...(readings.get(key) ?? []), reading]);
    }
    if (body.kind === 'set.changed' && !body.anyway) {
      const moved = objectionsTo(body, state, compiled, layoutId).find(({ code }) => code === 'moved-live' || code === 'strap-plugged');
      if (moved) doubts.push({ code: 'done-live', ...(moved.id === undefined ? {} : { id: moved.id }), entries: [entry.id] });
    }
    state = stateAfter(state, entry, compiled, layoutId);
  }
  return { readings, ...marks, state };
}

/** A touch, a squeeze, warm air on one place: the answer it gives. Where nothing changed the place may have been missed. */
function stimulusAnswer(tried: BodyOf<'stimulus.tried'>, { compiled, layoutId }: Case): BodyOf<'test.answered'> | undefined {
  const found = layoutId === undefined ? undefined : answerOf(tried, compiled, layoutId);
  if (!found) return undefined;
  const nothing = tried.effect === 'stayed' || tried.effect === 'stayed-away';
  return { kind: 'test.answered', v: 2, ...found, sure: 'sure', ...(nothing ? { symptomPresent: 'unknown' } : {}) };
}

function readAnswer(
  entry: Entry,
  body: BodyOf<'test.answered'>,
  state: SetState,
  { answered, impossible, unclear }: Marks,
  facts: Known,
): Reading | undefined {
  const { compiled, layoutId, family, symptoms, epoch, unused } = facts;
  const refuse = (code: UnusedCode, id?: string): undefined => {
    unused.push({ entry: entry.id, code, ...(id === undefined ? {} : { id }) });
    return undefined;
  };
  const test = compiled.tests.get(compiled.currentId(body.test));
  if (!test) return refuse('unknown-test', body.test);
  const key = testKey(test.id, body.of);
  if (body.outcome === 'not-possible') impossible.add(key);
  if (body.outcome === 'cant-tell') unclear.add(key);
  if (silent.includes(body.outcome)) return refuse('said-nothing');
  if (!compiled.outcomeIds(test.id).includes(body.outcome)) return refuse('unknown-outcome', body.outcome);
  if (test.of?.required && (body.of === undefined || !test.of.options.includes(body.of))) return refuse('object-missing', test.id);
  if (layoutId === undefined) return refuse('wrong-layout');
  const doneIn = [layoutId, ...Object.keys(facts.layoutProbabilities)].find((id) => compiled.fits(test, id));
  if (doneIn === undefined) return refuse('wrong-layout');
  const now = circumstancesIn(layoutId, { symptoms, family }, compiled);
  // What the first fault made abnormal says nothing of the next one; what read well then reads well still.
  if (entry.seq < epoch && body.outcome !== plainOutcome(test, now, compiled)) return refuse('earlier-fault');
  answered.add(key);
  // A test that needs no object is done once it was done on any.
  if (!test.of) answered.add(test.id);
  if (body.symptomPresent === 'no') return refuse('symptom-was-absent');
  // The programmer is what a memory is read with.
  const reads = test.do.some((step) => 'read' in step);
  const forgotten = forgottenBy(compiled.procedure(test, doneIn, body.of, family), reads ? { ...state, atMemory: [] } : state);
  if (forgotten.length > 0) return refuse('plug-left-out', forgotten.join(', '));
  if (test.speaksOnlyIf.some(({ needs }) => !holds(needs, now))) return refuse('could-not-change', test.id);
  const following = facts.follows.get(test.id);
  if (following && !following.anotherLook && following.outcomes.has(body.outcome)) return refuse('follows', test.id);
  return { entry, body, error: errorOf(entry, body, test, now, facts) };
}

/** How often an answer given so is wrong; what weakens it is said in the doubts. */
function errorOf(entry: Entry, body: BodyOf<'test.answered'>, test: TestDefinition, now: Circumstances, facts: Known): number {
  const { compiled, family, identity, symptoms, blinkReadings, doubts } = facts;
  const errors = [compiled.likelihoodWord(test.error)];
  if (body.sure === 'think-so') errors.push(thinkSoError);
  // What comes and goes may have been away while all looked well; what looked wrong was there.
  const maybeAway = facts.comesAndGoes && body.symptomPresent === undefined && body.outcome === plainOutcome(test, now, compiled);
  if (body.symptomPresent === 'unknown' || maybeAway) errors.push(unknownPresenceError);
  if (body.asDesigned === false) errors.push(weakError);
  const doubt = (code: Doubt['code']): void => void doubts.push({ code, id: test.id, entries: [entry.id] });
  if (namesOtherCode(test, body.outcome) && !codeReturned(entry, blinkReadings)) {
    errors.push(weakError);
    doubt('code-not-returned');
  }
  const otherSet = !inScope(test.scope, identityOf({ family, identity }));
  if (otherSet || (test.scope.symptoms && !holds({ symptoms: test.scope.symptoms }, now))) {
    errors.push(weakError);
    doubt('outside-scope');
  }
  if (hangsOnPolarity(test, body.outcome, facts)) {
    errors.push(activeLowShare);
    doubt('polarity-unknown');
  }
  if (test.disturbsCode && symptoms.has('blinking') && !blinkReadings.some((one) => one.entry.seq < entry.seq))
    doubt('code-not-read-first');
  return Math.max(...errors);
}

function linesSeenMoving(entries: readonly Entry[], compiled: CompiledPack): ReadonlySet<string> {
  const lines = entries.flatMap(({ body }) => {
    if (body.kind !== 'test.answered' || body.sure !== 'sure') return [];
    const test = compiled.tests.get(compiled.currentId(body.test));
    const answer = test?.observe.outcomes.find(({ id }) => id === body.outcome);
    const moved = answer?.seen?.some(({ reading }) => reading?.swings) ?? false;
    return moved ? (test?.do ?? []).flatMap((step) => ('measure' in step ? [step.at] : [])) : [];
  });
  return new Set(lines);
}

/**
 * A level read on a command line, or a line driven without effect, where neither the family nor the bench says at which level that line
 * asks: on some sets it means the opposite, or nothing.
 */
function hangsOnPolarity(test: TestDefinition, outcome: string, { family, moving }: Known): boolean {
  const unknown = (line: string): boolean => activeLevel(line, family) === 'unknown' && !moving.has(line);
  const byLevel = test.observe.outcomes.some(({ seen }) => seen?.some(({ reading }) => reading?.asks !== undefined));
  if (byLevel) return test.do.some((step) => 'measure' in step && unknown(step.at));
  const withoutEffect = test.observe.outcomes.some(({ id, seen }) => id === outcome && seen === undefined);
  return withoutEffect && test.do.some((step) => 'force' in step && unknown(step.force));
}

/** Another code with a board out points to it only where the old one comes back once it is refitted. */
function codeReturned({ seq }: Entry, blinkReadings: readonly BlinkEntry[]): boolean {
  const codes = blinkReadings.map((one) => ({ seq: one.entry.seq, code: one.body.groups.join('-') }));
  const before = codes.findLast((one) => one.seq < seq);
  return before !== undefined && codes.some((one) => one.seq > seq && one.code === before.code);
}

/**
 * Plugs out, lifted links, bridges and tape that aren't this procedure's own: what was then seen is not what it asks for. A part that was
 * taken off cuts nothing: what it shorted is gone, and the rest reads as ever.
 */
function forgottenBy({ pulled, bridged, taped, forced }: Procedure, state: SetState): string[] {
  const own = new Set(stillOut({ out: pulled, bridged, taped, lifted: [] }));
  // A forced line was driven from wherever its idle level said.
  const lines = forced.map(({ line }) => line);
  const others = state.bridged.filter((pair) => !lines.some((line) => pair.includes(line)));
  return stillOut({ ...state, bridged: others, lifted: state.lifted.filter(({ what }) => what === 'link') }).filter((one) => !own.has(one));
}

const namesOtherCode = (test: TestDefinition, outcome: string): boolean =>
  test.observe.outcomes.some(({ id, seen }) => id === outcome && seen?.some((one) => 'code' in one && one.code === 'changed'));
