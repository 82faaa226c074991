/**
 * The demo's played jobs: the ledgers of a made-up shop, each played on the simulated set with a seed by the at-once way, then left
 * where a shop would have left it today. `npm run demo:jobs` writes them to demo/jobs; a test looks that they are fresh.
 */
import { newJobSchema } from '@veglia/contract';
import {
  caseOfLedger,
  defaultSettings,
  engine,
  foldCase,
  proofOfRepair,
  usedAgain,
  type Body,
  type CompiledPack,
  type Entry,
  type SetFacts,
} from '@veglia/core';
import { atOnce, play, randomFrom, seedOf, SimulatedSet, simulatedFaults, simulatedOpponent } from '@veglia/simulators';
import type { z } from 'zod';

export interface Names {
  readonly people: readonly { readonly id: string }[];
  readonly customers: readonly string[];
  readonly phones: readonly string[];
}

export interface DemoJob {
  readonly by: string;
  readonly openedDaysAgo: number;
  readonly customer: z.input<typeof newJobSchema>['customer'];
  readonly plate: { readonly maker: string; readonly model: string; readonly serial: string };
  readonly promisedInDays?: number;
  /** Days from today on which parts that are on order are expected. */
  readonly partsInDays?: number;
  readonly entries: readonly { readonly minute: number; readonly body: Record<string, unknown> }[];
}

type Stand = 'taken-in' | 'begun' | 'half-way' | 'to-flash' | 'asked' | 'to-order' | 'on-order' | 'arrived' | 'closed';

interface Plan {
  readonly layout: string;
  readonly fault: string;
  readonly stand: Stand;
  readonly outcome?: 'repaired' | 'repaired-with-known-flaw' | 'workaround' | 'handed-back';
}

/** One line a job: every layout in every stand. Faults are the pack's; the closed ones older than the open ones. */
const plans: readonly Plan[] = [
  { layout: 'led-tcon', fault: 'strips.led-open', stand: 'closed' },
  { layout: 'led-tcon-on-main', fault: 'main.startup-memory', stand: 'closed' },
  { layout: 'led-tcon-on-panel', fault: 'strips.joint-open', stand: 'closed' },
  { layout: 'separate-driver', fault: 'driver.dead', stand: 'closed' },
  { layout: 'one-board', fault: 'power.standby-dead', stand: 'closed' },
  { layout: 'oled', fault: 'main.flash-content', stand: 'closed' },
  { layout: 'plasma', fault: 'scan-sustain.shorted', stand: 'closed' },
  { layout: 'led-tcon', fault: 'strips.led-open', stand: 'closed' },
  { layout: 'led-tcon', fault: 'tcon.fuse-open', stand: 'closed' },
  { layout: 'separate-driver', fault: 'strips.led-shorted', stand: 'closed', outcome: 'repaired-with-known-flaw' },
  { layout: 'led-tcon-on-main', fault: 'main.audio-short', stand: 'closed', outcome: 'workaround' },
  { layout: 'led-tcon-on-panel', fault: 'panel.glass-cracked', stand: 'closed' },
  { layout: 'one-board', fault: 'strips.led-open', stand: 'closed' },
  { layout: 'plasma', fault: 'logic.dead', stand: 'closed', outcome: 'handed-back' },
  { layout: 'oled', fault: 'power.rails-dead', stand: 'closed' },
  { layout: 'led-tcon', fault: 'main.no-ps-on', stand: 'closed' },
  { layout: 'led-tcon', fault: 'power.caps-dried', stand: 'half-way' },
  { layout: 'led-tcon-on-main', fault: 'panel.film-left', stand: 'half-way' },
  { layout: 'led-tcon-on-panel', fault: 'main.light-command', stand: 'half-way' },
  { layout: 'separate-driver', fault: 'driver.dead', stand: 'half-way' },
  { layout: 'one-board', fault: 'main.rail-missing', stand: 'half-way' },
  { layout: 'oled', fault: 'tcon.clock-dead', stand: 'half-way' },
  { layout: 'plasma', fault: 'common-sustain.shorted', stand: 'half-way' },
  { layout: 'led-tcon', fault: 'tcon.bias-dead', stand: 'asked' },
  { layout: 'separate-driver', fault: 'power.standby-dead', stand: 'asked' },
  { layout: 'plasma', fault: 'address.shorted', stand: 'asked' },
  { layout: 'led-tcon-on-main', fault: 'strips.led-open', stand: 'begun' },
  { layout: 'oled', fault: 'panel.bond-intermittent', stand: 'begun' },
  { layout: 'led-tcon-on-panel', fault: 'power.standby-dead', stand: 'begun' },
  { layout: 'one-board', fault: 'outside.supply', stand: 'begun' },
  { layout: 'separate-driver', fault: 'tcon.half-dead', stand: 'taken-in' },
  { layout: 'plasma', fault: 'power.standby-dead', stand: 'taken-in' },
  { layout: 'oled', fault: 'radio.dead', stand: 'taken-in' },
  { layout: 'led-tcon-on-main', fault: 'keys.stuck', stand: 'taken-in' },
  { layout: 'led-tcon-on-main', fault: 'main.startup-memory', stand: 'to-flash' },
  { layout: 'led-tcon', fault: 'power.standby-dead', stand: 'on-order' },
  { layout: 'led-tcon', fault: 'tcon.bias-dead', stand: 'arrived' },
  { layout: 'one-board', fault: 'strips.led-open', stand: 'to-order' },
];

/** Days between one job and the next, so that the last two were checked in today. */
const daysBetween = 0.8;
/** Somebody works at it so many minutes after it was checked in, and from step to step. */
const firstLook = 95;
const stepMinutes = 7;

export function playedJobs(compiled: CompiledPack, names: Names): Map<string, DemoJob> {
  const jobs = new Map<string, DemoJob>();
  plans.forEach((plan, index) => {
    const number = String(index + 10);
    jobs.set(`${number}-${plan.layout}-${plan.stand}.json`, playedJob(plan, index, compiled, names));
  });
  return jobs;
}

function playedJob(plan: Plan, index: number, compiled: CompiledPack, names: Names): DemoJob {
  const seed = 4000 + index;
  const random = randomFrom(seedOf(seed, 'demo'));
  const pick = <T>(items: readonly T[]): T => items[Math.floor(random() * items.length)] as T;
  const layout = compiled.layouts.get(plan.layout);
  if (!layout) throw new Error(`no layout ${plan.layout}`);
  const own = compiled.faultsOf.get(plan.layout) ?? [];
  const fault = own.find(({ id }) => id === plan.fault);
  if (!fault || !simulatedFaults.includes(fault.id)) throw new Error(`${plan.fault} can't be played in ${plan.layout}`);
  const family = pick(compiled.pack.families.filter((one) => one.layouts.includes(plan.layout)));
  const set: SetFacts = {
    layout: plan.layout,
    family: family.id,
    sizeInch: pick([32, 40, 43, 49, 50, 55, 65]),
    ageYears: 2 + Math.floor(random() * 9),
  };
  const simulated = new SimulatedSet({ layout, family, faults: [fault.id], seed });
  const opponent = simulatedOpponent(simulated, 0);
  const { entries: played, ending } = play({ opponent, way: atOnce, compiled, set, settings: defaultSettings, seed });

  const bodies: Body[] = [
    {
      kind: 'job.opened',
      v: 3,
      set,
      ...(random() < 0.25 ? { condition: [pick(['storm', 'liquid', 'dropped', 'opened-before'] as const)] } : {}),
      ...(random() < 0.5 ? { accessories: [pick(['remote', 'stand', 'cord'] as const)] } : {}),
      warranty: pick(['over', 'unknown'] as const),
    },
  ];
  for (const { body } of played)
    bodies.push(body.kind === 'symptom.reported' ? { ...body, words: inWords(body.symptoms[0] ?? '', compiled, random) } : body);
  const opening = 1 + bodies.slice(1).findIndex((body) => body.kind !== 'symptom.reported');
  const intake = bodies.slice(0, Math.max(2, opening));
  const work = bodies.slice(intake.length);
  intake.push({ kind: 'set.shelved', v: 1, shelf: pick(['A 1', 'A 2', 'A 3', 'B 1', 'B 2', 'B 3', 'C 1', 'C 2']) });
  if (random() < 0.5) intake.push({ kind: 'limit.agreed', v: 2, limit: euros(80 + 20 * Math.floor(random() * 5)), checkFee: euros(25) });

  const left = leftWhere(plan, work, ending, fault, random);
  const closed = left.findIndex(({ kind }) => kind === 'job.closed');
  if (closed >= 0) left.splice(closed, 0, ...proven([...intake, ...left.slice(0, closed)], left[closed], compiled));
  const steps = withAdvice(left, [...intake], compiled);
  let minute = 0;
  const entries = [...intake, ...steps].map((body, at) => {
    minute = at < intake.length ? at : Math.max(firstLook, minute + (body.kind === 'advice.shown' ? stepMinutes : 1));
    return { minute, body: { ...body } };
  });
  const shopOwn = index % 11 === 7;
  return {
    by: pick(names.people).id,
    openedDaysAgo: Math.round(Math.max(1, plans.length - 1 - index) * daysBetween * 10) / 10,
    customer: shopOwn
      ? null
      : { name: names.customers[index % names.customers.length] ?? '', contact: names.phones[index % names.phones.length] ?? '' },
    plate: { maker: family.maker, model: pick(family.models), serial: `${family.maker.slice(0, 2).toUpperCase()}${7000 + index * 37}` },
    ...(plan.stand === 'on-order' ? { partsInDays: 2 } : {}),
    ...(plan.stand === 'closed' || shopOwn ? {} : { promisedInDays: promises[index % promises.length] ?? 2 }),
    entries,
  };
}

/** Days from today for which open sets were promised: one is late already, one wants to be done today. */
const promises = [2, 1, 3, 0, 5, -1, 2];

/** As printed on boards of the demo; in demo/names.json. */
const partNumbers: Readonly<Record<string, string>> = { power: 'QKP-2250', tcon: 'OLT-TC61', strips: 'QKS-50-4', main: 'QKM-3107-B' };
const euros = (amount: number) => ({ amountMinor: amount * 100, currency: 'EUR' });

/** One of the ways the pack says a symptom is told, as a sentence. */
function inWords(symptom: string, compiled: CompiledPack, random: () => number): string {
  const also = compiled.pack.symptoms.find(({ id }) => id === symptom)?.also ?? [];
  const phrase = also[Math.floor(random() * also.length)] ?? '';
  return phrase === '' ? '' : `${phrase.charAt(0).toUpperCase()}${phrase.slice(1)}.`;
}

/** What of the work is done by today. */
function leftWhere(
  plan: Plan,
  work: readonly Body[],
  ending: string,
  fault: { id: string; assembly: string },
  random: () => number,
): Body[] {
  if (plan.stand === 'taken-in') return [];
  if (plan.stand === 'begun') return work.slice(0, 1);
  const repairAt = work.findIndex((body) => body.kind === 'repair.done');
  const before = repairAt < 0 ? work.length : repairAt;
  // Its chip is to be read on the flash bench.
  if (plan.stand === 'to-flash')
    return work.slice(
      0,
      work.findIndex((body) => body.kind === 'test.answered' && body.test.startsWith('memory.')),
    );
  if (plan.stand === 'half-way') return work.slice(0, Math.max(1, Math.ceil(before / 2)));
  if (plan.stand === 'to-order' || plan.stand === 'on-order' || plan.stand === 'arrived')
    return [...work.slice(0, Math.max(1, before)), ...partsOf(plan, fault.assembly, random)];
  if (plan.stand === 'asked') {
    const low = 90 + 10 * Math.floor(random() * 6);
    return [
      ...work.slice(0, Math.max(1, before)),
      { kind: 'quote.sent', v: 2, total: euros(low), upTo: euros(low + 60), options: ['repair', 'hand-back'] },
    ];
  }
  const cured = ending === 'cured';
  return [
    ...work,
    { kind: 'fault.confirmed', v: 1, assembly: fault.assembly, fault: fault.id },
    {
      kind: 'job.closed',
      v: 2,
      outcome: cured ? (plan.outcome ?? 'repaired') : 'not-worth-it',
      minutes: 20 + 6 * work.length,
      ...(cured ? { warrantyDays: 180 } : {}),
      ...(cured ? { checked: { 'ground-screws': 'passed', insulation: 'passed', 'touch-current': 'passed' } as const } : {}),
      ...(plan.outcome === 'repaired-with-known-flaw' ? { remains: 'a faint shade in one corner, accepted' } : {}),
    },
    // One in four still stands on its shelf.
    ...(random() < 0.75
      ? [{ kind: 'set.collected' as const, v: 1 as const, payment: cured ? ('card' as const) : ('nothing-to-pay' as const) }]
      : []),
  ];
}

/** A part that was quoted and agreed to, as far as it has come. */
function partsOf({ stand }: Plan, assembly: string, random: () => number): Body[] {
  const number = partNumbers[assembly] ?? 'QK-0';
  const want = `0192f000-0000-4000-8000-0000000${String(Math.floor(random() * 90_000) + 10_000)}`;
  const price = euros(30 + Math.floor(random() * 30));
  const all: Body[] = [
    { kind: 'board.found', v: 1, assembly, number },
    { kind: 'quote.sent', v: 2, total: euros(130), upTo: euros(170), options: ['repair', 'hand-back'] },
    { kind: 'quote.answered', v: 2, answer: 'yes', option: 'repair', how: 'phone' },
    {
      kind: 'part.wanted',
      v: 1,
      want,
      assembly,
      number,
      source: 'new',
      price,
      supplier: 'Brelm Parts',
      days: 3,
      warrantyDays: 365,
      returnDays: 14,
    },
    { kind: 'part.ordered', v: 1, want, supplier: 'Brelm Parts', price },
    { kind: 'part.arrived', v: 1, want, result: 'right' },
  ];
  return all.slice(0, stand === 'to-order' ? -2 : stand === 'on-order' ? -1 : all.length);
}

/** What was looked at before the set left; a week of daily starts is left out. */
function proven(bodies: readonly Body[], closed: Body | undefined, compiled: CompiledPack): Body[] {
  if (closed?.kind !== 'job.closed' || !usedAgain.includes(closed.outcome)) return [];
  const entries = bodies.map((body, index): Entry => ({
    id: `e${index}`,
    seq: index + 1,
    at: '2026-01-01T00:00:00Z',
    by: 'demo',
    basedOn: index,
    body,
  }));
  const { set } = foldCase(caseOfLedger(entries), compiled, 'cost', 'at-once');
  return proofOfRepair(entries, set, compiled).items.flatMap(({ id, kind, rule, count = 0, cold = 0, hours = 0 }): Body[] => {
    // They are in the closing itself, and starts are timed.
    if (rule.safety !== undefined || kind === 'delay') return [];
    if (kind === 'check') return [{ kind: 'proof.checked', v: 1, item: id, result: 'passed' }];
    if (kind === 'starts')
      return Array.from({ length: Math.max(3, count) }, (_, index): Body => ({
        kind: 'start.timed',
        v: 1,
        started: true,
        seconds: 6 + (index % 3) / 2,
        cold: index < cold,
      }));
    if (kind === 'soak') return [{ kind: 'proof.soaked', v: 1, minutes: hours * 60, result: 'passed' }];
    return [{ kind: 'proof.skipped', v: 1, item: id, reason: kind === 'days' ? 'no-time' : 'done-elsewhere' }];
  });
}

/** What the tool said before each answer and repair, as the app records it: calibration reads these. */
function withAdvice(work: readonly Body[], before: readonly Body[], compiled: CompiledPack): Body[] {
  const all: Body[] = [...before];
  const out: Body[] = [];
  for (const body of work) {
    if (['test.answered', 'repair.done', 'job.closed'].includes(body.kind)) {
      const entries = all.map((one, index): Entry => ({
        id: `e${index}`,
        seq: index + 1,
        at: '2026-01-01T00:00:00Z',
        by: 'demo',
        basedOn: index,
        body: one,
      }));
      const fold = foldCase(caseOfLedger(entries), compiled);
      const next = fold.next[0];
      const advice: Body = {
        kind: 'advice.shown',
        v: 2,
        engine,
        top: fold.assemblies
          .slice(0, 3)
          .map(({ id, probability, verdict }) => ({ id, probability: Math.round(probability * 1e6) / 1e6, verdict })),
        ...(next ? { next: { kind: next.kind, id: next.id, ...(next.of === undefined ? {} : { of: next.of }) } } : {}),
      };
      out.push(advice);
      all.push(advice);
    }
    out.push(body);
    all.push(body);
  }
  return out;
}
