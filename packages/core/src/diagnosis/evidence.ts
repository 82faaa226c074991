/** Ledger -> evidence: which entries speak, and how strongly, about each hypothesis. */
import { nearestCodes } from '../blink/index.ts';
import { inScope, silentOutcomes, type CompiledPack, type Procedure, type Seen, type TestDefinition } from '../knowledge/index.ts';
import {
  liveEntries,
  setOnArrival,
  stateAfter,
  type Body,
  type BodyOf,
  type CaseInput,
  type Entry,
  type SetState,
} from '../ledger/index.ts';
import { objectionsTo, stillOut } from '../safety/index.ts';
import type { Told } from './complaint.ts';
import { holds } from './conditions.ts';
import { answerOf } from './stimulus.ts';
import { hypothesesOf, layoutOddsOf } from './hypotheses.ts';
import {
  identityOf,
  testKey,
  type Doubt,
  type EvidenceUnit,
  type Interpretation,
  type Reading,
  type Unused,
  type UnusedCode,
} from './interpretation.ts';
import { circumstancesIn, plainOutcome } from './rows.ts';
import { blinkUnit, complaintUnit, handledUnit, repairUnit, testUnits, type BlinkEntry } from './units.ts';

// Reliability, values of ours (the bench counts them once jobs close): how far an answer is trusted.
/** "Think so": wrong one time in four. */
const thinkSoError = 0.25;
/** Outside its scope, or not done as designed: worth little, not nothing. */
const weakError = 0.35;
/** Nobody said whether an intermittent symptom was there. */
const unknownPresenceError = 0.15;

/** Equal counts in a row before a code is acted on; common practice, no source. */
const equalCounts = 2;

const silent: readonly string[] = silentOutcomes;

/** Everything the belief, the verdicts and the next step need from a case. Pure; order of independent facts is free. */
export function interpret(input: CaseInput, compiled: CompiledPack): Interpretation {
  const live = liveEntries(input.entries);
  const unused: Unused[] = [];
  const doubts: Doubt[] = [];
  const layoutOdds = layoutOddsOf(input, live, compiled, unused);
  const ranked = Object.entries(layoutOdds).sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  const layoutId = ranked[0]?.[0];
  if (ranked.length > 1) doubts.push({ code: 'layout-not-certain', value: ranked[0]?.[1] ?? 0 });
  const familyId = input.set.family;
  const family = familyId === undefined ? undefined : compiled.families.get(compiled.currentId(familyId));
  const hypotheses = hypothesesOf(layoutOdds, compiled, family);
  if (familyId !== undefined && !family) unused.push({ entry: 'set', code: 'unknown-family', id: familyId });

  const { model, version, year } = input.set;
  const identity = { model, version, year };
  const symptoms = new Set<string>();
  const symptomEntries: Entry[] = [];
  const blinkReadings: BlinkEntry[] = [];
  const readings = new Map<string, Reading[]>();
  const repairs: { entry: Entry; body: BodyOf<'repair.done'> }[] = [];
  const cautionsRead = new Set<string>();
  const answered = new Set<string>();
  const impossible = new Set<string>();
  const unclear = new Set<string>();
  const tries = new Map<string, number>();
  let state = setOnArrival;
  let closed = false;
  let comesAndGoes = false;
  // Another complaint after a repair: the case starts anew, keeping what still holds.
  const epoch = live.findLast(({ body }) => body.kind === 'repair.done' && body.result === 'changed')?.seq ?? 0;

  const last = live.findLast(({ body }) => ['test.answered', 'repair.done', 'symptom.reported'].includes(body.kind))?.body;
  const hasDarkRow = family?.blink.some(({ groups }) => groups.length === 0) ?? false;
  for (const entry of live) {
    const { body } = entry;
    if (entry.seq < epoch && (body.kind === 'symptom.reported' || body.kind === 'blink.read')) {
      unused.push({ entry: entry.id, code: 'earlier-fault' });
    } else if (body.kind === 'symptom.reported') {
      symptomEntries.push(entry);
      comesAndGoes ||= body.often === 'sometimes';
      for (const id of body.symptoms) {
        const current = compiled.currentId(id);
        if (compiled.symptomIds.includes(current)) symptoms.add(current);
        else unused.push({ entry: entry.id, code: 'unknown-symptom', id });
      }
    } else if (body.kind === 'blink.read') {
      // With a board out it tells of that board, by the test that compares; a light that is no code is no row of any table.
      if (body.out !== undefined) unused.push({ entry: entry.id, code: 'board-was-out', id: body.out });
      else if (body.groups.length === 0 && !(body.light === 'no-light' && hasDarkRow))
        unused.push({ entry: entry.id, code: 'light-no-code' });
      else blinkReadings.push({ entry, body });
    } else if (body.kind === 'caution.read') {
      for (const id of body.cautions) cautionsRead.add(id);
    } else if (body.kind === 'repair.done') {
      repairs.push({ entry, body });
    } else if (body.kind === 'job.closed') closed = true;
    else if (body.kind === 'job.reopened') closed = false;
  }

  for (const entry of live) {
    const { body } = entry;
    const answer = body.kind === 'test.answered' ? body : body.kind === 'stimulus.tried' ? answerBy(body) : undefined;
    const reading = answer && readTest(entry, answer);
    if (answer && reading) {
      const key = testKey(compiled.currentId(answer.test), answer.of);
      readings.set(key, [...(readings.get(key) ?? []), reading]);
    }
    if (body.kind === 'set.changed' && !body.anyway) {
      const live = objectionsTo(body, state, compiled, layoutId).find(({ code }) => code === 'moved-live' || code === 'strap-plugged');
      if (live) doubts.push({ code: 'done-live', ...(live.id === undefined ? {} : { id: live.id }), entries: [entry.id] });
    }
    state = stateAfter(state, entry, compiled, layoutId);
  }

  /** A touch, a squeeze, warm air on one place: the answer it gives. Where nothing changed the place may have been missed. */
  function answerBy(tried: BodyOf<'stimulus.tried'>): BodyOf<'test.answered'> | undefined {
    const found = layoutId === undefined ? undefined : answerOf(tried, compiled, layoutId);
    if (!found) return undefined;
    const nothing = tried.effect === 'stayed' || tried.effect === 'stayed-away';
    return { kind: 'test.answered', v: 2, ...found, sure: 'sure', ...(nothing ? { symptomPresent: 'unknown' } : {}) };
  }

  /** Another code with a board out accuses it only where the old one comes back once it is refitted. */
  function codeReturned({ seq }: Entry): boolean {
    const codes = blinkReadings.map((one) => ({ seq: one.entry.seq, code: one.body.groups.join('-') }));
    const before = codes.findLast((one) => one.seq < seq);
    return before !== undefined && codes.some((one) => one.seq > seq && one.code === before.code);
  }

  function readTest(entry: Entry, body: BodyOf<'test.answered'>): Reading | undefined {
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
    const doneIn = [layoutId, ...Object.keys(layoutOdds)].find((id) => compiled.fits(test, id));
    if (doneIn === undefined) return refuse('wrong-layout');
    const now = circumstancesIn(layoutId, { symptoms, family }, compiled);
    // What the first fault made abnormal says nothing of the next one; what read well then reads well still.
    if (entry.seq < epoch && body.outcome !== plainOutcome(test, now, compiled)) return refuse('earlier-fault');
    answered.add(key);
    // A test that needs no object is done once it was done on any.
    if (!test.of) answered.add(test.id);
    if (body.symptomPresent === 'no') return refuse('symptom-was-absent');
    const forgotten = forgottenBy(compiled.procedure(test, doneIn, body.of, family), state);
    if (forgotten.length > 0) return refuse('plug-left-out', forgotten.join(', '));
    if (test.speaksOnlyIf.some(({ needs }) => !holds(needs, now))) return refuse('could-not-change', test.id);
    let error = compiled.likelihoodWord(test.error);
    if (body.sure === 'think-so') error = Math.max(error, thinkSoError);
    // What comes and goes may have been away while all looked well; what looked wrong was there.
    const maybeAway = comesAndGoes && body.symptomPresent === undefined && body.outcome === plainOutcome(test, now, compiled);
    if (body.symptomPresent === 'unknown' || maybeAway) error = Math.max(error, unknownPresenceError);
    if (body.asDesigned === false) error = Math.max(error, weakError);
    if (namesOtherCode(test, body.outcome) && !codeReturned(entry)) {
      error = Math.max(error, weakError);
      doubts.push({ code: 'code-not-returned', id: test.id, entries: [entry.id] });
    }
    const otherSet = !inScope(test.scope, identityOf({ family, identity }));
    if (otherSet || (test.scope.symptoms && !holds({ symptoms: test.scope.symptoms }, now))) {
      error = Math.max(error, weakError);
      doubts.push({ code: 'outside-scope', id: test.id, entries: [entry.id] });
    }
    if (test.disturbsCode && symptoms.has('blinking') && !blinkReadings.some((one) => one.entry.seq < entry.seq)) {
      doubts.push({ code: 'code-not-read-first', id: test.id, entries: [entry.id] });
    }
    return { entry, body, error };
  }

  // A cleaning or a part may fail and is worth a second try, no more; a whole board that didn't cure isn't bought again.
  const mostTries = (id: string): number =>
    ['reseat', 'part', 'workaround'].includes(compiled.pack.repairs.find((one) => one.id === id)?.kind ?? '') ? 2 : 1;
  const facts = { symptoms, family, hypotheses, layoutOdds, compiled };
  const units: EvidenceUnit[] = [];
  const table = family !== undefined && family.blink.length > 0 ? family : undefined;
  const code = table && blinkReadings.length > 0 ? blinkUnit(blinkReadings, table, facts, doubts) : undefined;
  // A code that the table knows says all that "it blinks" says, and more: counted once.
  const known = table !== undefined && blinkReadings.some(({ body }) => nearestCodes(table, body)[0]?.distance === 0);
  const complaints = [...symptoms].filter((id) => !(known && id === 'blinking'));
  if (complaints.length > 0) units.push(complaintUnit({ complaints, ...mannerTold(symptomEntries) }, symptomEntries, facts));
  if (code) units.push(code);
  else for (const { entry } of blinkReadings) unused.push({ entry: entry.id, code: 'no-blink-table' });
  units.push(...testUnits(readings, facts, doubts));
  for (const { entry, body } of repairs) {
    const repair =
      compiled.repairsOf.get(layoutId ?? '')?.find((one) => one.id === compiled.currentId(body.repair)) ??
      compiled.pack.repairs.find((one) => one.id === compiled.currentId(body.repair));
    if (!repair) unused.push({ entry: entry.id, code: 'unknown-repair', id: body.repair });
    else if (body.result === 'not-tried') unused.push({ entry: entry.id, code: 'said-nothing' });
    else {
      tries.set(repair.id, (tries.get(repair.id) ?? 0) + 1);
      if (entry.seq === epoch) {
        doubts.push({ code: 'symptom-changed', entries: [entry.id] });
        units.push(handledUnit(entry, facts));
      }
      // What was renewed is not likely to be what is still wrong, or what went wrong next.
      units.push(repairUnit(repair, entry, body.result === 'cured' && entry.seq >= epoch ? 'cured' : 'unchanged', facts));
    }
  }

  /** A new part may be bad itself, or badly fitted: bought once more only where a reading after it says the same again. */
  function readAnew(id: string): boolean {
    const repair = compiled.pack.repairs.find((one) => one.id === id);
    const tried = repairs.findLast(({ body }) => compiled.currentId(body.repair) === id);
    if (repair?.kind !== 'replace' || repair.question || !tried) return false;
    const proof = compiled.layouts.get(layoutId ?? '')?.proof[repair.assembly]?.anyOf.flat() ?? [];
    return [...readings.values()]
      .flat()
      .some(
        ({ entry, body }) =>
          entry.seq > tried.entry.seq &&
          body.sure === 'sure' &&
          proof.some((item) => 'test' in item && item.test === body.test && item.of === body.of && item.outcomes.includes(body.outcome)) &&
          body.outcome !== plainOutcomeOf(body.test),
      );
  }

  function plainOutcomeOf(id: string): string | undefined {
    const test = compiled.tests.get(compiled.currentId(id));
    return test && layoutId !== undefined
      ? plainOutcome(test, circumstancesIn(layoutId, { symptoms, family }, compiled), compiled)
      : undefined;
  }

  // Two equal counts, in one look or in two; a light that is no code has none.
  const counts = blinkReadings.map(({ body }) => ({ code: body.groups.join('-'), cycles: Math.max(1, body.cycles) }));
  const lights = live.filter(({ body }) => body.kind === 'blink.read' && body.out === undefined && body.groups.length === 0);
  const blinkRead =
    lights.length > 0 ||
    counts.some(({ code }) => counts.reduce((sum, one) => sum + (one.code === code ? one.cycles : 0), 0) >= equalCounts);

  return {
    hypotheses,
    units,
    readings,
    identity,
    epoch,
    unused,
    doubts,
    symptoms,
    family,
    layoutOdds,
    layoutId,
    state,
    blinkRead,
    cautionsRead,
    answered,
    impossible,
    unclear,
    repaired: new Set([...tries].filter(([id, count]) => count >= mostTries(id) + (readAnew(id) ? 1 : 0)).map(([id]) => id)),
    pictureSeen: live.some(({ body }) => showsPicture(body, compiled)),
    cracked: live.findLastIndex(({ body }) => showsCrack(body, compiled)) > live.findLastIndex(({ body }) => renewsGlass(body, compiled)),
    cured: last !== undefined && endsComplaint(last, compiled),
    closed,
  };
}

/** How it comes and goes, as last told. */
function mannerTold(entries: readonly Entry[]): Pick<Told, 'often' | 'temperature'> {
  const told = entries.flatMap(({ body }) => (body.kind === 'symptom.reported' ? [body] : []));
  return {
    often: told.findLast(({ often }) => often !== undefined)?.often,
    temperature: told.findLast(({ temperature }) => temperature !== undefined)?.temperature,
  };
}

/** A loan goes back to the shelf: what it cured is proven, and the set is not yet whole. */
const isLoan = (test: TestDefinition | undefined): boolean => test?.do.some((step) => 'fit' in step) ?? false;

/** The last that was done ended the complaint for good: by a repair, or by a step that left the set whole. */
function endsComplaint(last: Body, compiled: CompiledPack): boolean {
  if (last.kind === 'repair.done') return last.result === 'cured';
  return (
    last.kind === 'test.answered' &&
    last.outcome === 'cured' &&
    last.sure === 'sure' &&
    !isLoan(compiled.tests.get(compiled.currentId(last.test)))
  );
}

function showsCrack(body: Body, compiled: CompiledPack): boolean {
  if (body.kind === 'job.opened') return body.condition?.includes('crack') ?? false;
  return seenIn(body, compiled, ({ glass }) => glass?.includes('cracked') ?? false);
}

const renewsGlass = (body: Body, compiled: CompiledPack): boolean =>
  body.kind === 'repair.done' &&
  body.result !== 'not-tried' &&
  compiled.pack.repairs.some(({ id, question }) => id === compiled.currentId(body.repair) && question);

/** A picture was on the glass by itself, good or bad; what is left over once "none" has an outcome of its own is a picture too. */
function showsPicture(body: Body, compiled: CompiledPack): boolean {
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

/** Plugs out, bridges and tape that aren't this procedure's own: what was then seen is not what it asks for. */
function forgottenBy({ pulled, bridged, taped, forced }: Procedure, state: SetState): string[] {
  const own = new Set(stillOut({ out: pulled, bridged, taped }));
  // A forced line was driven from wherever its idle level said.
  const lines = forced.map(({ line }) => line);
  const others = state.bridged.filter((pair) => !lines.some((line) => pair.includes(line)));
  return stillOut({ ...state, bridged: others }).filter((one) => !own.has(one));
}

const namesOtherCode = (test: TestDefinition, outcome: string): boolean =>
  test.observe.outcomes.some(({ id, seen }) => id === outcome && seen?.some((one) => 'code' in one && one.code === 'changed'));
