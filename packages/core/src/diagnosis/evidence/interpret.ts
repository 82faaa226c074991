/** Ledger -> evidence: which entries speak, and how strongly, about each hypothesis. */
import { nearestCodes } from '../../blink/index.ts';
import { historiesTold, withinFamily, type CompiledPack, type Family } from '../../knowledge/index.ts';
import { liveEntries, type CaseInput, type Entry } from '../../ledger/index.ts';
import { readAnswers } from './answers.ts';
import type { Told } from './complaint.ts';
import { whatFollows } from './follows.ts';
import { gather, seenByTheBench, type Gathered } from './gather.ts';
import { hypothesesOf, layoutProbabilitiesOf } from './hypotheses.ts';
import type { Doubt, EvidenceUnit, Interpretation, Unused } from './interpretation.ts';
import { toldOnArrival } from './onArrival.ts';
import { repairUnits } from './repairs.ts';
import { isCracked, isCured, showsPicture } from './seen.ts';
import { blinkUnit, complaintUnit, historyUnit, testUnits, type BlinkEntry, type Facts } from './units.ts';

/** Equal counts in a row before a code is acted on; common practice, no source. */
const equalCounts = 2;

/** Everything the belief, the verdicts and the next step need from a case. Pure; order of independent facts is free. */
export function interpret(input: CaseInput, compiled: CompiledPack): Interpretation {
  const live = liveEntries(input.entries);
  const unused: Unused[] = [];
  const doubts: Doubt[] = [];
  const layoutProbabilities = layoutProbabilitiesOf(input, live, compiled, unused);
  const ranked = Object.entries(layoutProbabilities).sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1));
  const layoutId = ranked[0]?.[0];
  if (ranked.length > 1) doubts.push({ code: 'layout-not-certain', value: ranked[0]?.[1] ?? 0 });
  const familyId = input.set.family;
  const family = familyId === undefined ? undefined : compiled.families.get(compiled.currentId(familyId));
  if (familyId !== undefined && !family) unused.push({ entry: 'set', code: 'unknown-family', id: familyId });
  // What its table and rails say was found out on other versions.
  const outsideFamily = family !== undefined && !withinFamily(family, input.set);
  if (outsideFamily) doubts.push({ code: 'outside-family', id: family.id });
  const hypotheses = hypothesesOf(layoutProbabilities, compiled, family);
  const { model, version, year } = input.set;
  const identity = { model, version, year };
  // Another symptom after a repair: the case starts anew, keeping what still holds.
  const epoch = live.findLast(({ body }) => body.kind === 'repair.done' && body.result === 'changed')?.seq ?? 0;
  const told = gather(live, { compiled, family, epoch, seen: seenByTheBench(live, epoch), unused });
  const { symptoms, blinkReadings, cautionsRead, closed } = told;

  const facts = { compiled, family, outsideFamily, hypotheses, layoutProbabilities, layoutId, symptoms, epoch, unused, doubts };
  const follows = whatFollows(live, epoch, compiled, layoutId);
  const answers = readAnswers(live, { ...facts, identity, blinkReadings, comesAndGoes: told.comesAndGoes, follows });
  const { readings } = answers;
  const ofRepairs = repairUnits(told.repairs, { ...facts, readings });
  const histories = historiesTold(compiled.pack, toldOnArrival(live));
  const arrival = live.find(({ body }) => body.kind === 'job.opened');

  return {
    hypotheses,
    units: [
      // What happened to the set speaks of the fault it came with.
      ...(arrival && histories.length > 0 && epoch === 0 ? [historyUnit(histories, arrival, facts)] : []),
      ...complaintUnits(told, live, family, facts),
      ...testUnits(readings, facts, doubts),
      ...ofRepairs.units,
    ],
    ...answers,
    follow: follows,
    identity,
    epoch,
    unused,
    doubts,
    symptoms,
    family,
    layoutProbabilities,
    layoutId,
    blinkRead: isBlinkRead(live, blinkReadings),
    cautionsRead,
    repaired: ofRepairs.repaired,
    pictureSeen: live.some(({ body }) => showsPicture(body, compiled)),
    cracked: isCracked(live, compiled),
    histories: histories.map(({ id }) => id),
    cured: isCured(live, compiled),
    closed,
  };
}

/** The symptom and the blink code. */
function complaintUnits(
  { symptoms, symptomEntries, blinkReadings }: Gathered,
  live: readonly Entry[],
  family: Family | undefined,
  facts: Facts & Pick<Interpretation, 'epoch'> & { readonly outsideFamily: boolean; readonly doubts: Doubt[]; readonly unused: Unused[] },
): EvidenceUnit[] {
  const { epoch, outsideFamily, doubts, unused } = facts;
  const table = family !== undefined && family.blink.length > 0 ? family : undefined;
  const code = table && blinkReadings.length > 0 ? blinkUnit(blinkReadings, table, facts, doubts, outsideFamily) : undefined;
  if (!code) for (const { entry } of blinkReadings) unused.push({ entry: entry.id, code: 'no-blink-table' });
  // A code that the table knows says all that "it blinks" says, and more: counted once.
  const known = table !== undefined && blinkReadings.some(({ body }) => nearestCodes(table, body)[0]?.distance === 0);
  const complaints = [...symptoms].filter((id) => !(known && id === 'blinking'));
  const seen = symptomEntries.some(({ body }) => body.kind === 'symptom.reported' && body.seen === true);
  const told = { complaints, ...(seen ? { seen } : {}), ...mannerTold(live.filter(({ seq }) => seq >= epoch)) };
  return [...(complaints.length > 0 ? [complaintUnit(told, symptomEntries, facts)] : []), ...(code ? [code] : [])];
}

/** How it comes and goes, as last told. */
function mannerTold(live: readonly Entry[]): Pick<Told, 'often' | 'temperature'> {
  const told = live.flatMap(({ body }) => (body.kind === 'symptom.reported' ? [body] : []));
  return {
    often: told.findLast(({ often }) => often !== undefined)?.often,
    temperature: told.findLast(({ temperature }) => temperature !== undefined)?.temperature,
  };
}

/** Two equal counts, in one look or in two; a light that is no code has none. */
function isBlinkRead(live: readonly Entry[], blinkReadings: readonly BlinkEntry[]): boolean {
  const counts = blinkReadings.map(({ body }) => ({ code: body.groups.join('-'), cycles: Math.max(1, body.cycles) }));
  const equal = (code: string): number => counts.reduce((sum, one) => sum + (one.code === code ? one.cycles : 0), 0);
  return (
    live.some(({ body }) => body.kind === 'blink.read' && body.out === undefined && body.groups.length === 0) ||
    counts.some(({ code }) => equal(code) >= equalCounts)
  );
}
