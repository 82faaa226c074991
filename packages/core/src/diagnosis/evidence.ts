/**
 * Ledger -> evidence: which entries speak, and how strongly, about each hypothesis. One unit of evidence is one thing
 * observed, however often it was looked at.
 */
import { codesGivenFault, misreadOnce, nearestCodes, readingGivenCode } from '../blink/index.ts';
import { silentOutcomes, type CompiledPack, type Family, type Fault, type TestDefinition } from '../knowledge/index.ts';
import { liveEntries, setOnArrival, stateAfter, type BodyOf, type CaseInput, type Entry, type SetState } from '../ledger/index.ts';
import { holds, type Circumstances } from './conditions.ts';

export const notInBook = 'not-in-the-book';

export interface Hypothesis {
  readonly layoutId: string;
  /** Undefined: "not in the book". */
  readonly fault: Fault | undefined;
  readonly prior: number;
}

/** Why an entry that could have been evidence isn't. */
export const unusedCodes = [
  'unknown-test',
  'unknown-outcome',
  'unknown-symptom',
  'unknown-family',
  'unknown-layout',
  'unknown-repair',
  'no-blink-table',
  'said-nothing',
  'could-not-change',
  'symptom-was-absent',
  'plug-left-out',
  'wrong-layout',
  'object-missing',
  'counts-not-used',
] as const;
export type UnusedCode = (typeof unusedCodes)[number];

export interface Unused {
  readonly entry: string;
  readonly code: UnusedCode;
  readonly id?: string;
}

export const doubtCodes = [
  'answers-disagree',
  'blink-read-once',
  'count-not-in-table',
  'code-not-read-first',
  'fits-nothing-well',
  'layout-not-certain',
  'outside-scope',
  'symptom-changed',
] as const;
export type DoubtCode = (typeof doubtCodes)[number];

export interface Doubt {
  readonly code: DoubtCode;
  readonly id?: string;
  readonly value?: number;
  readonly entries?: readonly string[];
}

export interface EvidenceUnit {
  readonly kind: 'symptom' | 'blink' | 'test' | 'repair';
  readonly key: string;
  readonly entries: readonly Entry[];
  readonly logLikelihood: readonly number[];
  /** For tests: what was answered, for proof requirements. */
  readonly answers: readonly { test: string; of: string | undefined; outcome: string; sure: boolean }[];
}

export interface Interpretation {
  readonly hypotheses: readonly Hypothesis[];
  readonly units: readonly EvidenceUnit[];
  readonly unused: readonly Unused[];
  readonly doubts: readonly Doubt[];
  readonly symptoms: ReadonlySet<string>;
  readonly family: Family | undefined;
  readonly layoutOdds: Readonly<Record<string, number>>;
  /** The layout plans and lists are taken from: the likeliest. */
  readonly layoutId: string | undefined;
  readonly state: SetState;
  readonly blinkRead: boolean;
  readonly cautionsRead: ReadonlySet<string>;
  /** `test|of` already answered with something, and those that can't be done here. */
  readonly answered: ReadonlySet<string>;
  readonly impossible: ReadonlySet<string>;
  /** Tried, and it couldn't be told. */
  readonly unclear: ReadonlySet<string>;
  /** Repairs already done, by id. */
  readonly repaired: ReadonlySet<string>;
  readonly closed: boolean;
}

// Reliability, values of ours (the bench counts them once jobs close): how far an answer is trusted.
/** "Think so": wrong one time in four. */
const thinkSoError = 0.25;
/** Outside its scope, or not done as designed: worth little, not nothing. */
const weakError = 0.35;
/** Nobody said whether an intermittent symptom was there. */
const unknownPresenceError = 0.15;
/** A customer's complaint names the wrong row, or the row after a strip of knocks on the way. */
const complaintError = 0.03;
/** Tests that share a cause of error: chance that the shared cause struck. */
const groupError = 0.05;

export const testKey = (test: string, of: string | undefined): string => (of === undefined ? test : `${test}|${of}`);

const silent: readonly string[] = silentOutcomes;

function layoutOddsOf(input: CaseInput, live: readonly Entry[], compiled: CompiledPack, unused: Unused[]): Record<string, number> {
  const found = live.filter((entry) => entry.body.kind === 'layout.found').at(-1);
  const guess = found?.body.kind === 'layout.found' ? found.body.layout : input.set.layout;
  const wanted = typeof guess === 'string' ? { [guess]: 1 } : guess.odds;
  const weights: Record<string, number> = {};
  for (const [id, weight] of Object.entries(wanted)) {
    const current = compiled.currentId(id);
    if (!compiled.layouts.has(current)) unused.push({ entry: found?.id ?? 'set', code: 'unknown-layout', id });
    else if (weight > 0) weights[current] = (weights[current] ?? 0) + weight;
  }
  if (Object.keys(weights).length === 0) {
    for (const layout of compiled.pack.layouts) weights[layout.id] = compiled.pack.scale.frequency[layout.frequency] ?? 1;
  }
  const total = Object.values(weights).reduce((a, b) => a + b, 0);
  return Object.fromEntries(Object.entries(weights).map(([id, weight]) => [id, weight / total]));
}

function hypothesesOf(layoutOdds: Readonly<Record<string, number>>, compiled: CompiledPack): Hypothesis[] {
  const outsideBook = compiled.pack.thresholds.notInBook;
  return Object.entries(layoutOdds).flatMap(([layoutId, share]) => {
    const odds = compiled.startingOdds.get(layoutId) ?? [];
    const single = (compiled.faultsOf.get(layoutId) ?? []).map((fault, index) => ({
      layoutId,
      fault,
      prior: share * (1 - outsideBook) * (odds[index] ?? 0),
    }));
    return [...single, { layoutId, fault: undefined, prior: share * outsideBook }];
  });
}

interface Reading {
  readonly entry: Entry;
  readonly body: BodyOf<'test.answered'>;
  readonly error: number;
}

/** Everything the belief, the verdicts and the next step need from a case. Pure; order of independent facts is free. */
export function interpret(input: CaseInput, compiled: CompiledPack): Interpretation {
  const live = liveEntries(input.entries);
  const unused: Unused[] = [];
  const doubts: Doubt[] = [];
  const layoutOdds = layoutOddsOf(input, live, compiled, unused);
  const ranked = Object.entries(layoutOdds).sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  const layoutId = ranked[0]?.[0];
  if (ranked.length > 1) doubts.push({ code: 'layout-not-certain', value: ranked[0]?.[1] ?? 0 });
  const hypotheses = hypothesesOf(layoutOdds, compiled);
  const familyId = input.set.family;
  const family = familyId === undefined ? undefined : compiled.families.get(compiled.currentId(familyId));
  if (familyId !== undefined && !family) unused.push({ entry: 'set', code: 'unknown-family', id: familyId });

  const symptoms = new Set<string>();
  const symptomEntries: Entry[] = [];
  const blinkReadings: { entry: Entry; body: BodyOf<'blink.read'> }[] = [];
  const readings = new Map<string, Reading[]>();
  const repairs: { entry: Entry; body: BodyOf<'repair.done'> }[] = [];
  const cautionsRead = new Set<string>();
  const answered = new Set<string>();
  const impossible = new Set<string>();
  const unclear = new Set<string>();
  const repaired = new Set<string>();
  let state = setOnArrival;
  let blinkRead = false;
  let closed = false;

  for (const entry of live) {
    const { body } = entry;
    if (body.kind === 'symptom.reported') {
      symptomEntries.push(entry);
      for (const id of body.symptoms) {
        const current = compiled.currentId(id);
        if (compiled.symptomIds.includes(current)) symptoms.add(current);
        else unused.push({ entry: entry.id, code: 'unknown-symptom', id });
      }
    } else if (body.kind === 'blink.read') {
      blinkReadings.push({ entry, body });
      blinkRead = true;
    } else if (body.kind === 'caution.read') {
      for (const id of body.cautions) cautionsRead.add(id);
    } else if (body.kind === 'repair.done') {
      repairs.push({ entry, body });
    } else if (body.kind === 'job.closed') closed = true;
    else if (body.kind === 'job.reopened') closed = false;
  }

  for (const entry of live) {
    const { body } = entry;
    if (body.kind === 'test.answered') {
      const reading = readTest(entry, body);
      if (reading) {
        const key = testKey(compiled.currentId(body.test), body.of);
        readings.set(key, [...(readings.get(key) ?? []), reading]);
      }
    }
    state = stateAfter(state, entry, compiled, layoutId);
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
    if (layoutId === undefined || !test.scope.layouts.some((id) => layoutOdds[id] !== undefined)) return refuse('wrong-layout');
    answered.add(key);
    if (body.symptomPresent === 'no') return refuse('symptom-was-absent');
    const pulled = compiled.procedure(
      test,
      test.scope.layouts.includes(layoutId) ? layoutId : (test.scope.layouts[0] ?? layoutId),
      body.of,
    ).pulled;
    if (state.out.some((id) => !pulled.includes(id))) return refuse('plug-left-out', state.out.join(', '));
    const now: Circumstances = { symptoms, family, layoutId };
    if (test.speaksOnlyIf.some(({ needs }) => !holds(needs, now))) return refuse('could-not-change', test.id);
    let error = compiled.likelihoodWord(test.error);
    if (body.sure === 'think-so') error = Math.max(error, thinkSoError);
    if (body.symptomPresent === 'unknown') error = Math.max(error, unknownPresenceError);
    if (body.asDesigned === false) error = Math.max(error, weakError);
    if (test.scope.symptoms && !holds({ symptoms: test.scope.symptoms }, now)) {
      error = Math.max(error, weakError);
      doubts.push({ code: 'outside-scope', id: test.id, entries: [entry.id] });
    }
    if (test.disturbsCode && symptoms.has('blinking') && !blinkReadings.some((one) => one.entry.seq < entry.seq)) {
      doubts.push({ code: 'code-not-read-first', id: test.id, entries: [entry.id] });
    }
    return { entry, body, error };
  }

  const circumstances = (hypothesis: Hypothesis): Circumstances => ({ symptoms, family, layoutId: hypothesis.layoutId });
  const units: EvidenceUnit[] = [];
  const codeSpeaks = blinkReadings.length > 0 && (family?.blink.length ?? 0) > 0;

  // A code that was read says all that "it blinks" says, and more: counted once.
  const complaints = [...symptoms].filter((id) => !(codeSpeaks && id === 'blinking' && symptoms.size > 1));
  if (complaints.length > 0) {
    const count = compiled.symptomIds.length;
    units.push({
      kind: 'symptom',
      key: 'symptom',
      entries: symptomEntries,
      answers: [],
      logLikelihood: hypotheses.map(({ fault }) =>
        complaints.reduce((sum, id) => {
          const index = compiled.symptomIds.indexOf(id);
          const told = fault ? (compiled.symptomOdds.get(fault.id)?.[index] ?? 0) : 1 / count;
          return sum + Math.log((1 - complaintError) * told + complaintError / count);
        }, 0),
      ),
    });
  }

  if (blinkReadings.length > 0) {
    if (!family || family.blink.length === 0) {
      for (const { entry } of blinkReadings) unused.push({ entry: entry.id, code: 'no-blink-table' });
    } else {
      units.push(blinkUnit(blinkReadings, family, hypotheses, compiled, doubts));
    }
  }

  const byGroup = new Map<string, { test: TestDefinition; of: string | undefined; readings: Reading[] }[]>();
  for (const [key, list] of readings) {
    const first = list[0];
    const test = first && compiled.tests.get(compiled.currentId(first.body.test));
    if (!first || !test) continue;
    const group = test.group ?? key;
    byGroup.set(group, [...(byGroup.get(group) ?? []), { test, of: first.body.of, readings: list }]);
    if (new Set(list.map((one) => one.body.outcome)).size > 1) {
      doubts.push({ code: 'answers-disagree', id: test.id, entries: list.map((one) => one.entry.id) });
    }
  }
  for (const [key, members] of byGroup) {
    const shared = members.length > 1 ? groupError : 0;
    units.push({
      kind: 'test',
      key,
      entries: members.flatMap((member) => member.readings.map((one) => one.entry)),
      answers: members.flatMap((member) =>
        member.readings.map(({ body }) => ({
          test: member.test.id,
          of: body.of,
          outcome: body.outcome,
          sure: body.sure === 'sure' && body.asDesigned !== false && body.symptomPresent !== 'unknown',
        })),
      ),
      logLikelihood: hypotheses.map((hypothesis) => {
        let told = 1;
        let untold = 1;
        for (const member of members) {
          const outcomes = compiled.outcomeIds(member.test.id);
          const uniform = outcomes.map(() => 1 / outcomes.length);
          const odds = oddsFor(member.test, hypothesis, member.of, circumstances(hypothesis), compiled);
          told *= readingsGiven(member.readings, outcomes, odds);
          untold *= readingsGiven(member.readings, outcomes, uniform);
        }
        return Math.log((1 - shared) * told + shared * untold);
      }),
    });
  }

  for (const { entry, body } of repairs) {
    const repair = compiled.pack.repairs.find((one) => one.id === compiled.currentId(body.repair));
    if (!repair) {
      unused.push({ entry: entry.id, code: 'unknown-repair', id: body.repair });
      continue;
    }
    if (body.result !== 'not-tried') repaired.add(repair.id);
    else {
      unused.push({ entry: entry.id, code: 'said-nothing' });
      continue;
    }
    if (body.result === 'changed') doubts.push({ code: 'symptom-changed', entries: [entry.id] });
    // A fault survives its own repair with 1 - p(fix); any other fault survives it but for a chance cure.
    const fixes = compiled.likelihoodWord(repair.fixes);
    const byChance = Math.min(...Object.values(compiled.pack.scale.likelihood));
    units.push({
      kind: 'repair',
      key: `repair|${entry.id}`,
      entries: [entry],
      answers: [],
      logLikelihood: hypotheses.map(({ fault }) => {
        const gone = fault?.assembly === repair.assembly ? fixes : fault ? byChance : 0.5;
        return Math.log(body.result === 'unchanged' ? 1 - gone : gone);
      }),
    });
  }

  return {
    hypotheses,
    units,
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
    repaired,
    closed,
  };
}

/** P(outcome | hypothesis) over a test's outcomes, for an answer without error. Where the test says nothing: uniform. */
export function oddsFor(
  test: TestDefinition,
  hypothesis: Hypothesis,
  of: string | undefined,
  now: Circumstances,
  compiled: CompiledPack,
): readonly number[] {
  const outcomes = compiled.outcomeIds(test.id);
  if (!hypothesis.fault || !test.scope.layouts.includes(hypothesis.layoutId)) return outcomes.map(() => 1 / outcomes.length);
  const block = test.likelihood.find((one) => holds(one.when, now));
  if (!block) return outcomes.map(() => 1 / outcomes.length);
  return compiled.outcomeOdds(test, block, hypothesis.layoutId, hypothesis.fault.id, of);
}

/**
 * P(readings | true outcome's odds). The true outcome is one; every look at it errs on its own. So the same test done
 * again is one observation grown more reliable, and can never say more than a perfect look would.
 */
function readingsGiven(readings: readonly Reading[], outcomes: readonly string[], odds: readonly number[]): number {
  return outcomes.reduce((sum, truth, index) => {
    const looks = readings.reduce(
      (product, { body, error }) => product * (body.outcome === truth ? 1 - error : error / (outcomes.length - 1)),
      1,
    );
    return sum + (odds[index] ?? 0) * looks;
  }, 0);
}

function blinkUnit(
  readings: readonly { entry: Entry; body: BodyOf<'blink.read'> }[],
  family: Family,
  hypotheses: readonly Hypothesis[],
  compiled: CompiledPack,
  doubts: Doubt[],
): EvidenceUnit {
  const codes = [...family.blink, undefined];
  for (const { entry, body } of readings) {
    if (body.cycles < 2) doubts.push({ code: 'blink-read-once', value: misreadOnce, entries: [entry.id] });
    const nearest = nearestCodes(family, body)[0];
    if (nearest && nearest.distance > 0) doubts.push({ code: 'count-not-in-table', id: nearest.code.id, entries: [entry.id] });
  }
  return {
    kind: 'blink',
    key: 'blink',
    entries: readings.map(({ entry }) => entry),
    answers: [],
    logLikelihood: hypotheses.map(({ fault }) => {
      const sent = fault ? codesGivenFault(compiled, family, fault) : codes.map(() => 1 / codes.length);
      const sum = codes.reduce(
        (total, code, index) =>
          total + (sent[index] ?? 0) * readings.reduce((product, { body }) => product * readingGivenCode(body, code), 1),
        0,
      );
      return Math.log(sum);
    }),
  };
}
