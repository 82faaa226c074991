/** Units of evidence: one thing observed, however often it was looked at, and what it says of each hypothesis. */
import { codesGivenFault, misreadOnce, nearestCodes, readingGivenCode } from '../../blink/index.ts';
import { historyGiven, type CompiledPack, type Family, type History, type Repair, type TestDefinition } from '../../knowledge/index.ts';
import type { BodyOf, Entry } from '../../ledger/index.ts';
import { toldGiven, type Told } from './complaint.ts';
import { curesOf } from './cures.ts';
import type { Doubt, EvidenceUnit, Interpretation, Reading } from './interpretation.ts';
import { circumstancesKey, outcomeTable } from './rows.ts';

/** A blink code as it was written down. */
export interface BlinkEntry {
  readonly entry: Entry;
  readonly body: BodyOf<'blink.read'>;
}

/** What evidence is weighed under. */
export interface Facts extends Pick<Interpretation, 'symptoms' | 'family' | 'hypotheses' | 'layoutProbabilities'> {
  readonly compiled: CompiledPack;
}

// Values of ours until the shop's closed jobs tell better ones.
/** Flashes in a run that may be attempts to start. */
const longRun = 15;
/** The family's table doesn't hold for this very set (other version, other software): the code then says nothing. */
const tableError = 0.05;
/** Of a version that the family doesn't cover: as much as any result got outside its scope (value of ours). */
const otherTableError = 0.35;
/** Tests that share a cause of error: chance that the shared cause struck. */
const groupError = 0.05;

/** The reported symptoms as evidence: the log likelihood (natural) of being told so, for each hypothesis in order. */
export function complaintUnit(told: Told, entries: readonly Entry[], { hypotheses, compiled, family }: Facts): EvidenceUnit {
  return {
    kind: 'symptom',
    key: 'symptom',
    entries,
    answers: [],
    logLikelihood: hypotheses.map(({ fault, layoutId }) => Math.log(toldGiven(fault, layoutId, family, told, compiled))),
  };
}

/** What happened to the set before it came here. Something not in the pack: as often as of the average set. */
export function historyUnit(told: readonly History[], entry: Entry, { hypotheses, compiled }: Facts): EvidenceUnit {
  const given = hypotheses.map(({ fault }) =>
    fault
      ? told.reduce((product, one) => product * historyGiven(one, fault, compiled.pack, (word) => compiled.likelihoodWord(word)), 1)
      : undefined,
  );
  const known = hypotheses.reduce((sum, { fault, prior }) => sum + (fault ? prior : 0), 0);
  const average = hypotheses.reduce((sum, { prior }, h) => sum + prior * (given[h] ?? 0), 0) / known;
  return { kind: 'history', key: 'history', entries: [entry], answers: [], logLikelihood: given.map((p) => Math.log(p ?? average)) };
}

/** All readings of the light are looks at one code; `family` has a table. */
export function blinkUnit(
  readings: readonly BlinkEntry[],
  family: Family,
  { hypotheses, compiled }: Facts,
  doubts: Doubt[],
  outside = false,
): EvidenceUnit {
  const error = outside ? otherTableError : tableError;
  const codes = [...family.blink, undefined];
  for (const { entry, body } of readings) {
    if (body.cycles < 2 && body.groups.length > 0) doubts.push({ code: 'blink-read-once', value: misreadOnce, entries: [entry.id] });
    const [only, ...more] = body.groups;
    // Nobody makes a code so long; common practice, no source.
    if (more.length === 0 && (only ?? 0) >= longRun && body.after !== 'repeats')
      doubts.push({ code: 'maybe-start-attempts', value: only ?? 0, entries: [entry.id] });
    const nearest = nearestCodes(family, body)[0];
    if (nearest && nearest.distance > 0) doubts.push({ code: 'count-not-in-table', id: nearest.code.id, entries: [entry.id] });
  }
  const looks = codes.map((code) => readings.reduce((product, { body }) => product * readingGivenCode(body, code), 1));
  const byChance = looks.reduce((a, b) => a + b, 0) / looks.length;
  return {
    kind: 'blink',
    key: 'blink',
    entries: readings.map(({ entry }) => entry),
    answers: [],
    logLikelihood: hypotheses.map(({ fault }) => {
      const sent = fault ? codesGivenFault(compiled, family, fault) : codes.map(() => 1 / codes.length);
      const byTable = looks.reduce((total, look, index) => total + (sent[index] ?? 0) * look, 0);
      return Math.log((1 - error) * byTable + error * byChance);
    }),
  };
}

/** One unit a group; a test without a group is a group of its own. `readings` by test and object. */
export function testUnits(readings: ReadonlyMap<string, readonly Reading[]>, facts: Facts, doubts: Doubt[]): EvidenceUnit[] {
  const { compiled, hypotheses } = facts;
  const circumstances = circumstancesKey(facts);
  const groups = new Map<string, { key: string; test: TestDefinition; of: string | undefined; looks: readonly Reading[] }[]>();
  for (const [key, looks] of readings) {
    const first = looks[0];
    const test = first && compiled.tests.get(compiled.currentId(first.body.test));
    if (!first || !test) continue;
    const group = test.group ?? key;
    groups.set(group, [...(groups.get(group) ?? []), { key, test, of: first.body.of, looks }]);
    if (new Set(looks.map((one) => one.body.outcome)).size > 1) {
      doubts.push({ code: 'answers-disagree', id: test.id, entries: looks.map((one) => one.entry.id) });
    }
  }
  return [...groups].map(([key, members]) => {
    const shared = members.length > 1 ? groupError : 0;
    const tables = members.map(({ test, of, looks }) => {
      const outcomes = compiled.outcomeIds(test.id);
      const { truth } = outcomeTable(facts, compiled, test, of, circumstances);
      const given = looksGiven(looks, outcomes);
      return { given, truth, byChance: given.reduce((a, b) => a + b, 0) / outcomes.length };
    });
    return {
      kind: 'test',
      key,
      readings: members.map((member) => member.key),
      entries: members.flatMap((member) => member.looks.map((one) => one.entry)),
      answers: members.flatMap(({ test, of, looks }) =>
        looks.map(({ body }) => ({
          test: test.id,
          of,
          outcome: body.outcome,
          sure: body.sure === 'sure' && body.asDesigned !== false && body.symptomPresent !== 'unknown',
        })),
      ),
      logLikelihood: hypotheses.map((_, h) => {
        let told = 1;
        let untold = 1;
        for (const { given, truth, byChance } of tables) {
          let seen = 0;
          for (let outcome = 0; outcome < given.length; outcome += 1) seen += (truth[outcome]?.[h] ?? 0) * (given[outcome] ?? 0);
          told *= seen;
          untold *= byChance;
        }
        return Math.log((1 - shared) * told + shared * untold);
      }),
    };
  });
}

/** A fault survives its own repair with 1 - p(fix); any other fault survives it but for a chance cure. */
export function repairUnit(repair: Repair, entry: Entry, result: 'cured' | 'unchanged', { hypotheses, compiled }: Facts): EvidenceUnit {
  const byChance = Math.min(...Object.values(compiled.pack.scale.likelihood));
  return {
    kind: 'repair',
    key: `repair|${entry.id}`,
    entries: [entry],
    answers: [],
    logLikelihood: hypotheses.map((hypothesis) => {
      const gone = hypothesis.fault ? Math.max(byChance, curesOf(repair, hypothesis, compiled)) : 0.5;
      return Math.log(result === 'unchanged' ? 1 - gone : gone);
    }),
  };
}

/** How much likelier a plug is to be what is wrong once hands were inside and something else showed (value of ours). */
const handledPlugs = 6;

/** Another symptom right after a repair: what was just handled comes first. */
export function handledUnit(entry: Entry, { hypotheses, compiled }: Facts): EvidenceUnit {
  const plugs = new Set(compiled.pack.assemblies.filter(({ kind }) => kind === 'harness').map(({ id }) => id));
  return {
    kind: 'repair',
    key: `handled|${entry.id}`,
    entries: [entry],
    answers: [],
    logLikelihood: hypotheses.map(({ fault }) => (fault && plugs.has(fault.assembly) ? 0 : -Math.log(handledPlugs))),
  };
}

/**
 * P(looks | true outcome), for each. The true outcome is one; every look at it errs on its own. So the same test done
 * again is one observation grown more reliable, and can never say more than a perfect look would.
 */
function looksGiven(looks: readonly Reading[], outcomes: readonly string[]): number[] {
  return outcomes.map((truth) =>
    looks.reduce((product, { body, error }) => product * (body.outcome === truth ? 1 - error : error / (outcomes.length - 1)), 1),
  );
}
