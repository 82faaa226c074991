/**
 * Proof of repair: what has to be seen before a set leaves, what of it has been, and what is still in the way.
 *
 * Always holds: what was seen before the last repair, or before the job was opened again, says nothing of the set as it is now; a safety check is never left out but by the local rule.
 */
import type { CompiledPack, ProofRule } from '../knowledge/index.ts';
import type { BodyOf, Entry, SetState } from '../ledger/index.ts';
import { checksBeforeClosing, usedAgain, type ClosingCheck } from '../safety/index.ts';

/** Why something is left out. */
export type SkipReason = BodyOf<'proof.skipped'>['reason'];
/** Where an item is. */
export type ProofState = 'open' | 'passed' | 'failed' | 'skipped';
/** Starts since the last repair. */
export interface StartsSeen {
  readonly good: number;
  readonly cold: number;
  readonly failed: number;
}
/** One thing to be seen. Hours of a soak, days of starts, starts and cold ones of them: the most that any row asks for. */
export interface ProofItem {
  readonly id: string;
  readonly kind: ProofRule['kind'];
  /** Row of the pack whose words say it. */
  readonly rule: ProofRule;
  readonly state: ProofState;
  readonly reason?: SkipReason;
  readonly count?: number;
  readonly cold?: number;
  readonly hours?: number;
  readonly days?: number;
  /** Hands-on, and waiting, minutes still to come. */
  readonly minutes: number;
  readonly waitMinutes: number;
}
/** The proof of a job. */
export interface Proof {
  readonly items: readonly ProofItem[];
  readonly starts: StartsSeen;
  /** Days on which it started. */
  readonly daysSeen: number;
  /** Seconds from the press to the picture, of starts before the first repair and since the last one. */
  readonly delays: { readonly before: readonly number[]; readonly after: readonly number[] };
}

/** A start from cold takes half an hour unplugged first. */
const coldWait = 30;

interface Work {
  readonly assembly: string;
  readonly kind: string;
  readonly part?: string | undefined;
}

/** Work on the set, and the place in the ledger behind which the last of it lies, or the last time that the job was opened again. */
function workOf(
  live: readonly Entry[],
  compiled: CompiledPack,
): { readonly work: readonly Work[]; readonly since: number; readonly first: number } {
  const work: Work[] = [];
  let [since, first] = [0, live.length];
  live.forEach(({ body }, index) => {
    let done: Work | undefined;
    if (body.kind === 'repair.done' && body.result !== 'not-tried') {
      const id = compiled.currentId(body.repair);
      const repair = compiled.pack.repairs.find((one) => one.id === id);
      done = repair && { assembly: repair.assembly, kind: repair.kind, part: repair.part };
    } else if (body.kind === 'part.fitted') {
      // The paper of a part that was fitted: the repair itself is on record already.
      if (!work.some(({ assembly }) => assembly === body.assembly)) done = { assembly: body.assembly, kind: 'replace' };
    } else if (body.kind === 'job.reopened') since = index + 1;
    if (!done) return;
    work.push(done);
    since = index + 1;
    first = Math.min(first, index);
  });
  return { work, since, first };
}

type Condition = NonNullable<ProofRule['when']>[number];
interface Known {
  readonly work: readonly Work[];
  readonly symptoms: ReadonlySet<string>;
  readonly opened: boolean;
  readonly counted: boolean;
}
function holds(condition: Condition, { work, symptoms, opened, counted }: Known): boolean {
  const { assemblies, kinds, parts } = condition;
  const onWork = assemblies !== undefined || kinds !== undefined || parts !== undefined;
  const named = (list: readonly string[] | undefined, value: string | undefined): boolean =>
    list === undefined || (value !== undefined && list.includes(value));
  return (
    (!onWork || work.some((one) => named(assemblies, one.assembly) && named(kinds, one.kind) && named(parts, one.part))) &&
    (condition.symptoms === undefined || condition.symptoms.some((one) => symptoms.has(one))) &&
    (condition.opened === undefined || opened) &&
    (condition.counted === undefined || counted)
  );
}

/** Starts, soak and days are one item each, whatever number of rows asks for them. */
const itemOf = ({ id, kind }: ProofRule): string => (kind === 'starts' || kind === 'soak' || kind === 'days' ? kind : id);

/** What this job’s set has to show. `live`: entries that still count. */
export function proofOfRepair(live: readonly Entry[], state: Pick<SetState, 'stage'>, compiled: CompiledPack): Proof {
  const { work, since, first } = workOf(live, compiled);
  const known: Known = {
    work,
    symptoms: new Set(live.flatMap(({ body }) => (body.kind === 'symptom.reported' ? body.symptoms : []))),
    opened: state.stage > 0 || live.some(({ body }) => body.kind === 'set.changed' && body.stage !== undefined && body.stage !== 'closed'),
    counted: live.some(({ body }) => body.kind === 'blink.read'),
  };
  const safety = checksBeforeClosing({ outcome: 'repaired' }, live, { stage: known.opened ? 1 : 0 }, compiled);
  const rules = compiled.pack.proof.filter((rule) =>
    rule.safety === undefined
      ? rule.when === undefined || rule.when.some((condition) => holds(condition, known))
      : safety.includes(rule.safety),
  );
  const after = live.slice(since);
  const starts = after.flatMap(({ body }) => (body.kind === 'start.timed' ? [body] : []));
  const seen: StartsSeen = {
    good: starts.filter(({ started }) => started).length,
    cold: starts.filter(({ started, cold }) => started && cold).length,
    failed: starts.filter(({ started }) => !started).length,
  };
  const seconds = (entries: readonly Entry[]): number[] =>
    entries.flatMap(({ body }) => (body.kind === 'start.timed' && body.started && body.seconds !== undefined ? [body.seconds] : []));
  const daysSeen = new Set(after.flatMap(({ at, body }) => (body.kind === 'start.timed' && body.started ? [at.slice(0, 10)] : []))).size;
  const delays = { before: seconds(live.slice(0, first)), after: seconds(after) };
  const byItem = new Map<string, ProofRule[]>();
  for (const rule of rules) byItem.set(itemOf(rule), [...(byItem.get(itemOf(rule)) ?? []), rule]);
  const items = [...byItem].flatMap(([id, rows]): ProofItem[] => {
    const most = (of: 'count' | 'cold' | 'hours' | 'days'): number => Math.max(0, ...rows.map((row) => row[of] ?? 0));
    const rule = rows.toSorted((a, b) => weight(b) - weight(a))[0];
    if (!rule) return [];
    const asked = { count: most('count'), cold: most('cold'), hours: most('hours'), days: most('days') };
    const found = stateOf(id, rule, asked, live, rule.beforeRepair === true ? 0 : since, { seen, daysSeen, timed: delays.after.length });
    const left = found.state === 'open' || found.state === 'failed';
    const toCome =
      rule.kind === 'starts' ? Math.max(0, asked.count - seen.good) : rule.kind === 'days' ? Math.max(0, asked.days - daysSeen) : 1;
    return [
      {
        id,
        kind: rule.kind,
        rule,
        ...found,
        ...(asked.count > 0 ? { count: asked.count } : {}),
        ...(asked.cold > 0 ? { cold: asked.cold } : {}),
        ...(asked.hours > 0 ? { hours: asked.hours } : {}),
        ...(asked.days > 0 ? { days: asked.days } : {}),
        minutes: left ? rule.minutes * toCome : 0,
        waitMinutes: !left
          ? 0
          : rule.kind === 'soak'
            ? asked.hours * 60
            : rule.kind === 'starts'
              ? Math.max(0, asked.cold - seen.cold) * coldWait
              : 0,
      },
    ];
  });
  return { items, starts: seen, daysSeen, delays };
}
/** Of several rows for one item the one that asks for most says how. */
const weight = ({ count = 0, hours = 0, days = 0 }: ProofRule): number => Math.max(count, hours, days);

interface Asked {
  readonly count: number;
  readonly cold: number;
  readonly hours: number;
  readonly days: number;
}
interface Seen {
  readonly seen: StartsSeen;
  readonly daysSeen: number;
  readonly timed: number;
}
function stateOf(
  id: string,
  rule: ProofRule,
  asked: Asked,
  live: readonly Entry[],
  since: number,
  { seen, daysSeen, timed }: Seen,
): Pick<ProofItem, 'state' | 'reason'> {
  const after = live.slice(rule.kind === 'modification' ? 0 : since);
  const skipped = after.findLast(({ body }) => body.kind === 'proof.skipped' && body.item === id)?.body as
    BodyOf<'proof.skipped'> | undefined;
  const may = skipped !== undefined && (rule.safety === undefined || (rule.safety !== 'ground-screws' && skipped.reason === 'local-rule'));
  const skip: Pick<ProofItem, 'state' | 'reason'> = may ? { state: 'skipped', reason: skipped.reason } : { state: 'open' };
  switch (rule.kind) {
    case 'starts':
      if (seen.failed > 0) return { state: 'failed' };
      return seen.good >= asked.count && seen.cold >= asked.cold ? { state: 'passed' } : skip;
    case 'days':
      if (seen.failed > 0) return { state: 'failed' };
      return daysSeen >= asked.days ? { state: 'passed' } : skip;
    case 'delay':
      return timed >= asked.count ? { state: 'passed' } : skip;
    case 'soak': {
      const soaks = after.flatMap(({ body }) => (body.kind === 'proof.soaked' ? [body] : []));
      if (soaks.some(({ result }) => result === 'failed')) return { state: 'failed' };
      return soaks.some(({ minutes }) => minutes >= asked.hours * 60) ? { state: 'passed' } : skip;
    }
    case 'modification':
      return after.some(({ body }) => body.kind === 'modification.recorded') ? { state: 'passed' } : skip;
    case 'check': {
      const at = after.findLastIndex(({ body }) => body.kind === 'proof.checked' && body.item === id);
      const body = after[at]?.body as BodyOf<'proof.checked'> | undefined;
      if (!body || (rule.safety === 'ground-screws' && openedAfter(after, at))) return skip;
      return { state: body.result };
    }
  }
}
/** The cover came off again. */
const openedAfter = (entries: readonly Entry[], at: number): boolean =>
  entries.slice(at + 1).some(({ body }) => body.kind === 'set.changed' && body.stage !== undefined && body.stage !== 'closed');

/** Items that stand between the set and this end: open ones, and failed ones but where they are a flaw that is known. */
export function proofBeforeClosing(
  { outcome, checked }: Pick<BodyOf<'job.closed'>, 'outcome' | 'checked'>,
  live: readonly Entry[],
  state: Pick<SetState, 'stage'>,
  compiled: CompiledPack,
): string[] {
  if (!usedAgain.includes(outcome)) return [];
  const known = outcome !== 'repaired';
  return proofOfRepair(live, state, compiled)
    .items.filter(({ rule: { safety } }) => safety === undefined || checked?.[safety] === undefined)
    .filter(({ state: where, rule }) => where === 'open' || (where === 'failed' && !(known && rule.safety === undefined)))
    .map(({ id }) => id);
}

/** What the set needs first; undefined: it may be looked at now. */
export function proofNeeds({ rule: { needs } }: ProofItem, { plugged }: Pick<SetState, 'plugged'>): 'plug-in' | 'unplug' | undefined {
  if (needs === undefined || plugged === (needs === 'plugged')) return undefined;
  return needs === 'plugged' ? 'plug-in' : 'unplug';
}

/** What an item is called in the pack. */
export const proofName = (id: string, { pack }: CompiledPack): ProofRule['name'] =>
  (pack.proof.find((one) => one.id === id) ?? pack.proof.find(({ kind }) => kind === id))?.name ?? { en: id };

/** Safety checks that neither this closing nor the proof answers. */
export function checksMissing(
  body: Pick<BodyOf<'job.closed'>, 'outcome' | 'checked'>,
  live: readonly Entry[],
  state: Pick<SetState, 'stage'>,
  compiled: CompiledPack,
): ClosingCheck[] {
  const asked = checksBeforeClosing(body, live, state, compiled);
  if (asked.length === 0) return asked;
  const { items } = proofOfRepair(live, state, compiled);
  return asked.filter(
    (check) => !items.some(({ rule, state: where }) => rule.safety === check && (where === 'passed' || where === 'skipped')),
  );
}
