/** One row a job, for lists and search: a cache of the fold that nothing decides from. */
import type { CompiledPack } from '../../knowledge/index.ts';
import type { TimedJob } from '../../learning/index.ts';
import { liveEntries, openWaits, type CaseInput, type EntryKind, type Wait } from '../../ledger/index.ts';
import { proofOfRepair, type ProofItem } from '../../proof/index.ts';
import { stillOut } from '../../safety/index.ts';
import { partsOf, waitOf, type JobPart, type OrderRefusal } from '../../parts/index.ts';
import { briefOf } from './brief.ts';
import { mayOrder } from './mayOrder.ts';
import { timedJob } from './timed.ts';

/** Where a job stands. */
export const jobStates = ['taken-in', 'on-the-bench', 'closed'] as const;
/** One of `jobStates`. */
export type JobState = (typeof jobStates)[number];

/** What a job’s card shows. */
export interface JobCardFacts {
  readonly state: JobState;
  readonly symptoms: readonly string[];
  readonly top?: { readonly id: string; readonly probability: number; readonly verdict: string };
  readonly next?: { readonly kind: string; readonly id: string; readonly of?: string };
  readonly outcome?: string;
  readonly found?: { readonly assembly: string; readonly fault?: string };
  readonly family?: string;
  /** The likeliest. */
  readonly layout?: string;
  /** Blink code as last read, groups joined by hyphens. */
  readonly code?: string;
  readonly condition: readonly string[];
  readonly closedAt?: string;
  readonly entryCount: number;
  readonly lastSeq: number;
  /** Timers that nobody has ended. */
  readonly waits: readonly Wait[];
  /** What the likeliest way on takes: the next step and the first repair behind it, or the proof of one that is done; minutes. */
  readonly ahead: readonly { readonly id: string; readonly hands: number; readonly wait: number }[];
  /** Day it was promised for, YYYY-MM-DD. */
  readonly promisedOn?: string;
  readonly shelf?: string;
  readonly sizeInch?: number;
  readonly stage: string;
  readonly plugged: boolean;
  /** What is unplugged, bridged or taped inside. */
  readonly stillOut: readonly string[];
  /** Over what may be spent without a call. */
  readonly over: { readonly money: boolean; readonly minutes: boolean };
  readonly waitsFor: WaitsFor;
  /** Parts that are neither fitted nor done with; what stands between those to be ordered and their order. */
  readonly parts: readonly CardPart[];
  /** Day on which the last part that is on its way is expected. */
  readonly partsOn?: string;
  /** Running on a stopgap until this day. */
  readonly trialUntil?: string;
  /** Closed, and the customer has it again. */
  readonly collected: boolean;
  /** Number of the job that this one follows. */
  readonly comebackOf?: number;
  /** Of a closed one whose minutes were typed. */
  readonly timed?: TimedJob;
}

/** A part on a card. */
export interface CardPart extends Pick<
  JobPart,
  'want' | 'assembly' | 'number' | 'source' | 'state' | 'price' | 'supplier' | 'expectedOn' | 'unproven' | 'arrival' | 'item' | 'orderedOn'
> {
  readonly refused?: { readonly why: OrderRefusal; readonly overMinor?: number };
}

/** What a set is waiting for: a hand, a timer, a part, the customer's answer; nothing once it is closed. */
export const waitsForKinds = ['hands', 'timer', 'customer', 'part', 'nothing'] as const;
/** What a job waits for. */
export type WaitsFor = (typeof waitsForKinds)[number];

/** Entries that say nothing about the set and put nothing in its way: after them the next step is what it was. A test holds it. */
export const bystanders: ReadonlySet<EntryKind> = new Set<EntryKind>([
  'note.added',
  'photo.added',
  'advice.shown',
  'message.sent',
  'set.shelved',
  'date.promised',
  'text.redacted',
]);
/** What of a card was planned: it holds on where only `bystanders` were added. */
export type Planned = Pick<JobCardFacts, 'next' | 'ahead'>;

const benchKinds = new Set(['test.answered', 'reading.taken', 'repair.done', 'part.fitted', 'flash.done', 'set.changed']);

const sumOf = (items: readonly ProofItem[], of: 'minutes' | 'waitMinutes'): number => items.reduce((sum, one) => sum + one[of], 0);

/** What the list of jobs shows of a case, from its ledger and whose set it is. Times in milliseconds since 1970, minutes hands-on. */
export function cardOf(input: CaseInput, compiled: CompiledPack, ownSet = false, planned?: Planned): JobCardFacts {
  const live = liveEntries(input.entries);
  const brief = briefOf(input, compiled, 'cost', planned ? 'none' : 'settled');
  const { closed } = brief.belief.interpretation;
  const lastClose = live.filter((entry) => entry.body.kind === 'job.closed').at(-1);
  const { top } = brief;
  const next = planned ? planned.next : brief.next[0];
  const found = live.findLast(({ body }) => body.kind === 'fault.confirmed')?.body;
  const read = live.findLast(({ body }) => body.kind === 'blink.read')?.body;
  const opened = live.find(({ body }) => body.kind === 'job.opened')?.body;
  const waits = openWaits(live);
  const asked = live.findLast(({ body }) => body.kind === 'quote.sent' || body.kind === 'quote.answered')?.body;
  const promised = live.findLast(({ body }) => body.kind === 'date.promised')?.body;
  const shelved = live.findLast(({ body }) => body.kind === 'set.shelved')?.body;
  // Where the next step is a question or a proof, nobody plans a part behind it.
  const repair = next?.kind === 'stop' ? undefined : brief.next.find((step) => step.kind === 'repair');
  const ahead =
    planned?.ahead ??
    [...new Set([brief.next[0], repair])].flatMap((step) =>
      step && step.kind !== 'stop' ? [{ id: step.id, hands: step.minutes, wait: step.waitMinutes }] : [],
    );
  const parts = partsOf(live);
  const partWait = waitOf(parts);
  const trial = live.findLast(({ body }) => body.kind === 'trial.started' || body.kind === 'trial.ended')?.body;
  const comeback = live.findLast(({ body }) => body.kind === 'comeback.linked')?.body;
  const left = live.findLast(({ body }) => body.kind === 'set.collected' || body.kind === 'job.reopened')?.body;
  const timed = closed ? timedJob(input, brief.spent) : undefined;
  const proof = next?.id === 'prove-and-close' ? proofOfRepair(live, brief.set, compiled).items : [];
  const waitsFor: WaitsFor = closed
    ? 'nothing'
    : asked?.kind === 'quote.sent'
      ? 'customer'
      : waits.length > 0
        ? 'timer'
        : partWait.waits
          ? 'part'
          : 'hands';
  const of = { ownSet, layoutId: brief.set.layout, spentMinor: brief.spent.total.amountMinor };
  const symptoms = live.flatMap((entry) => (entry.body.kind === 'symptom.reported' ? entry.body.symptoms : []));
  return {
    state: closed ? 'closed' : live.some((entry) => benchKinds.has(entry.body.kind)) ? 'on-the-bench' : 'taken-in',
    symptoms: [...new Set(symptoms)],
    ...(top ? { top: { id: top.id, probability: top.probability, verdict: top.verdict } } : {}),
    ...(next ? { next: { kind: next.kind, id: next.id, ...(next.of === undefined ? {} : { of: next.of }) } } : {}),
    ...(closed && lastClose?.body.kind === 'job.closed' ? { outcome: lastClose.body.outcome } : {}),
    ...(found?.kind === 'fault.confirmed'
      ? { found: { assembly: found.assembly, ...(found.fault === undefined ? {} : { fault: found.fault }) } }
      : {}),
    ...(input.set.family === undefined ? {} : { family: input.set.family }),
    ...(brief.set.layout === undefined ? {} : { layout: brief.set.layout }),
    ...(read?.kind === 'blink.read' ? { code: read.groups.join('-') } : {}),
    condition: opened?.kind === 'job.opened' ? (opened.condition ?? []) : [],
    ...(closed && lastClose ? { closedAt: lastClose.at } : {}),
    entryCount: input.entries.length,
    lastSeq: input.entries.reduce((most, entry) => Math.max(most, entry.seq), 0),
    waits,
    ahead: proof.length === 0 ? ahead : [{ id: 'proof', hands: sumOf(proof, 'minutes'), wait: sumOf(proof, 'waitMinutes') }],
    ...(promised?.kind === 'date.promised' ? { promisedOn: promised.on } : {}),
    ...(shelved?.kind === 'set.shelved' ? { shelf: shelved.shelf } : {}),
    ...(input.set.sizeInch === undefined ? {} : { sizeInch: input.set.sizeInch }),
    stage: brief.set.stageId,
    plugged: brief.set.plugged,
    stillOut: stillOut(brief.set),
    over: brief.spent.over,
    waitsFor,
    parts: parts
      // What is on its way comes whether or not the job is still open.
      .filter(({ state }) => state !== 'fitted' && state !== 'sent-back' && state !== 'dropped' && !(closed && state === 'to-order'))
      .map(({ want, assembly, number, source, state, price, supplier, expectedOn, unproven, arrival, item, orderedOn }): CardPart => {
        const refused = state === 'to-order' ? mayOrder(input, { assembly, priceMinor: price.amountMinor }, of, compiled) : undefined;
        return {
          want,
          assembly,
          number,
          source,
          state,
          price,
          unproven,
          ...(supplier === undefined ? {} : { supplier }),
          ...(expectedOn === undefined ? {} : { expectedOn }),
          ...(arrival === undefined ? {} : { arrival }),
          ...(item === undefined ? {} : { item }),
          ...(orderedOn === undefined ? {} : { orderedOn }),
          ...(refused ? { refused } : {}),
        };
      }),
    ...(partWait.expectedOn === undefined ? {} : { partsOn: partWait.expectedOn }),
    ...(trial?.kind === 'trial.started' ? { trialUntil: trial.until } : {}),
    collected: closed && left?.kind === 'set.collected',
    ...(comeback?.kind === 'comeback.linked' ? { comebackOf: comeback.number } : {}),
    ...(timed ? { timed } : {}),
  };
}
