/**
 * The way from the state a set is in to where a step can be done: unplug, wait and look, measure, pull, plug in. One move is one
 * confirmation, and one `set.changed` entry.
 *
 * Always holds: walking a walk move by move from the state it was made for meets no objection.
 */
import {
  drainMinutes,
  stageOfPlace,
  type ActiveLevel,
  type CompiledPack,
  type Family,
  type Forcing,
  type Step,
} from '../knowledge/index.ts';
import type { BodyOf, SetState, Toward } from '../ledger/index.ts';
import { chargePoints, isHot, stillOut } from './places.ts';

/** A single thing done to the set. */
export type Act =
  | { readonly kind: 'unplug' }
  | { readonly kind: 'rails-down' }
  | { readonly kind: 'verify'; readonly points: readonly string[] }
  | { readonly kind: 'open'; readonly stage: string }
  | { readonly kind: 'strap-on' }
  | { readonly kind: 'strap-off' }
  | { readonly kind: 'pull' | 'restore' | 'tape' | 'untape'; readonly id: string }
  | {
      readonly kind: 'bridge';
      readonly from: string;
      readonly to: string;
      readonly ohms: number;
      readonly seconds: number;
      readonly level?: ActiveLevel;
      readonly above?: Forcing['above'];
    }
  | { readonly kind: 'unbridge'; readonly from: string; readonly to: string }
  | { readonly kind: 'plug-in'; readonly stillOut: readonly string[] };

/** Acts that are confirmed together by one key. */
export interface WalkMove {
  /** `down`: nothing but unplugging and a look; `verify`: a measurement; `change`: plugs, bridges, tape; `power`: plugging in. */
  readonly kind: 'down' | 'verify' | 'change' | 'power';
  readonly acts: readonly Act[];
  /** What is recorded; a `verify` still lacks the volts that were read. */
  readonly change: BodyOf<'set.changed'>;
  /** To wait before it can be true, minutes. */
  readonly waitMinutes: number;
}

/** The way from how the set stands to how a step needs it. */
export interface Walk {
  readonly moves: readonly WalkMove[];
  /** Cover on, nothing out: plugging in and out needs no words. */
  readonly harmless: boolean;
  /** Power state the step is then done in. */
  readonly endsIn: 'plugged' | 'unplugged' | 'rails-down' | 'verified';
}

const observing = ['look', 'listen', 'torch', 'tap', 'squeeze', 'measure', 'read'] as const;
const observes = (step: Step): boolean => observing.some((verb) => verb in step);

/** What a step asks of the set, in order; a repair is "down, work, power". */
interface Plan {
  readonly steps: readonly Step[];
  readonly stage: number;
  readonly out: readonly string[];
  readonly bridged: readonly (readonly [string, string])[];
  readonly taped: readonly string[];
  readonly forced: readonly Forcing[];
  readonly hot: boolean;
}

function planOf(target: Toward, compiled: CompiledPack, layoutId: string, family: Family | undefined): Plan | undefined {
  if (target.kind === 'repair') {
    const repair = compiled.repairsOf.get(layoutId)?.find((one) => one.id === target.id);
    if (!repair) return undefined;
    const stage = stageOfPlace(repair.place, layoutId, compiled);
    const steps: Step[] = stage === 0 ? [] : [{ unplug: true }, { drain: 'rails-down' }, { power: 'on' }];
    return { steps, stage, out: [], bridged: [], taped: [], forced: [], hot: isHot(repair.place, layoutId, compiled) };
  }
  const test = compiled.tests.get(target.id);
  if (!test || !compiled.fits(test, layoutId)) return undefined;
  const procedure = compiled.procedure(test, layoutId, target.of, family);
  const last = test.do.findLastIndex(observes);
  const steps = test.do.slice(0, last + 1).map((step): Step => {
    const own = (ids: readonly string[]): string[] => procedure.pulled.filter((id) => ids.includes(id) || ids.includes('$of'));
    if ('pull' in step) return { pull: own(step.pull) };
    if ('restore' in step) return { restore: own(step.restore) };
    if ('fit' in step && step.at === '$of') return { ...step, at: target.of ?? step.at };
    if ('clean' in step && step.clean === '$of') return { clean: target.of ?? step.clean };
    if ('measure' in step && step.at === '$of') return { ...step, at: target.of ?? step.at };
    return step;
  });
  const { stage, pulled: out, bridged, taped, forced } = procedure;
  return { steps, stage, out, bridged, taped, forced, hot: false };
}

/** Undefined where the layout doesn't have the step. `state` is what may be relied on (`standingAt`); `family` tells a forced line's polarity. */
export function walkTo(target: Toward, state: SetState, compiled: CompiledPack, layoutId: string, family?: Family): Walk | undefined {
  const plan = planOf(target, compiled, layoutId, family);
  if (!plan) return undefined;
  const harmless = state.stage === 0 && plan.stage === 0 && !state.strap && stillOut(state).length === 0;
  const pace = new Pace(state, target, compiled, layoutId);
  if (harmless) return { moves: [], harmless, endsIn: plan.steps.some((step) => 'power' in step) ? 'plugged' : 'unplugged' };

  if (plan.stage > state.stage) pace.openTo(plan.stage);
  // One change at a time: what another step left out goes back first.
  const inside = (id: string): boolean => stageOfPlace(id, layoutId, compiled) > 0;
  const key = (pair: readonly string[]): string => [...pair].sort().join(' ');
  const wanted = new Set(plan.bridged.map(key));
  for (const id of state.out.filter((one) => !plan.out.includes(one))) pace.move({ kind: 'restore', id }, inside(id), [id]);
  for (const [from, to] of state.bridged.filter((pair) => !wanted.has(key(pair))))
    pace.move({ kind: 'unbridge', from, to }, true, [from, to]);
  for (const id of state.taped.filter((one) => !plan.taped.includes(one))) pace.move({ kind: 'untape', id }, true, [id]);
  if (plan.hot) pace.verified();
  // Where hot and cold share a board there is no cold side to put a hand to: rails down isn't enough.
  const shared = compiled.layouts.get(layoutId)?.hotInside === true && plan.stage > 0;
  const safeForHands = (): void => (shared ? pace.verified() : pace.down());

  for (const step of plan.steps) {
    if ('unplug' in step) pace.unplugged();
    else if ('drain' in step) {
      if (step.drain === 'verified') pace.verified();
      else safeForHands();
    } else if ('pull' in step) {
      for (const id of step.pull) if (!pace.state.out.includes(id)) pace.move({ kind: 'pull', id }, inside(id), [id]);
    } else if ('restore' in step) {
      for (const id of step.restore) {
        if (pace.state.out.includes(id)) pace.move({ kind: 'restore', id }, inside(id), [id]);
        else if (pace.state.taped.includes(id)) pace.move({ kind: 'untape', id }, true, [id]);
      }
    } else if ('bridge' in step) {
      const [from, to, ohms] = step.bridge;
      if (!pace.state.bridged.some((pair) => key(pair) === key([from, to])))
        pace.move({ kind: 'bridge', from, to, ohms, seconds: step.seconds }, true, [from, to]);
    } else if ('force' in step) {
      const forcing = plan.forced.find(({ line }) => line === step.force);
      if (forcing && !pace.state.bridged.some((pair) => key(pair) === key([forcing.from, forcing.line]))) {
        const { from, line: to, ohms, level, above } = forcing;
        const bridge = { kind: 'bridge', from, to, ohms, seconds: step.seconds, level } as const;
        pace.move(above ? { ...bridge, above } : bridge, true, [from, to]);
      }
    } else if ('tape' in step) {
      if (!pace.state.taped.includes(step.tape)) pace.move({ kind: 'tape', id: step.tape }, true, [step.tape]);
    } else if ('power' in step) pace.plugIn();
    else if ('measure' in step) {
      if (step.in === 'verified') pace.verified();
      else if (step.in === 'unplugged' && inside(step.at)) safeForHands();
    } else if ('clean' in step || 'fit' in step || 'lift' in step || 'load' in step || 'warm' in step || 'chill' in step) {
      const place = 'clean' in step ? step.clean : 'fit' in step ? step.at : 'lift' in step ? step.lift : undefined;
      if (pace.state.plugged && ('warm' in step || 'chill' in step)) continue;
      if (place !== undefined && isHot(place, layoutId, compiled)) pace.verified();
      else if (plan.stage > 0) safeForHands();
    } else if (('read' in step || 'write' in step) && !pace.state.plugged) safeForHands();
  }
  return { moves: pace.moves(), harmless, endsIn: pace.endsIn() };
}

/** Keeps the state a walk has come to, and gathers acts into moves. */
class Pace {
  state: SetState;
  private readonly done: { kind: WalkMove['kind']; acts: Act[] }[] = [];
  private readonly target: Toward;
  private readonly compiled: CompiledPack;
  private readonly layoutId: string;

  constructor(state: SetState, target: Toward, compiled: CompiledPack, layoutId: string) {
    this.state = state;
    this.target = target;
    this.compiled = compiled;
    this.layoutId = layoutId;
  }

  private add(kind: WalkMove['kind'], act: Act): void {
    const last = this.done.at(-1);
    if (last?.kind === kind) last.acts.push(act);
    else this.done.push({ kind, acts: [act] });
  }

  unplugged(): void {
    if (!this.state.plugged) return;
    this.add('down', { kind: 'unplug' });
    this.state = { ...this.state, plugged: false, railsDown: false, verified: false };
  }

  /** The light walk: plug out, light out, low rails gone. */
  down(): void {
    this.unplugged();
    if (this.state.railsDown || this.state.verified) return;
    this.add('down', { kind: 'rails-down' });
    this.state = { ...this.state, railsDown: true };
  }

  /** The heavy one: the charge is read. */
  verified(): void {
    this.unplugged();
    if (this.state.verified) return;
    this.add('verify', { kind: 'verify', points: chargePoints(this.layoutId, this.compiled) });
    this.state = { ...this.state, railsDown: true, verified: true };
  }

  open(stage: number): void {
    this.unplugged();
    this.add('down', { kind: 'open', stage: this.compiled.stageIds[stage] ?? '' });
    this.state = { ...this.state, stage };
  }

  /** Stage by stage, the charge read before one that asks for it. */
  openTo(stage: number): void {
    const measured = this.compiled.pack.stages.findIndex((one, index) => one.verified && index > this.state.stage && index <= stage);
    if (measured > 0) {
      if (measured - 1 > this.state.stage) this.open(measured - 1);
      this.verified();
    }
    this.open(stage);
  }

  move(
    act: Extract<Act, { kind: 'pull' | 'restore' | 'tape' | 'untape' | 'bridge' | 'unbridge' }>,
    inside: boolean,
    at: readonly string[],
  ): void {
    if (inside) {
      if (at.some((id) => isHot(id, this.layoutId, this.compiled))) this.verified();
      else this.down();
      if (this.state.verified && !this.state.strap) {
        this.add('change', { kind: 'strap-on' });
        this.state = { ...this.state, strap: true };
      }
    }
    this.add('change', act);
    const { out, bridged, taped } = this.state;
    const without = (ids: readonly string[], id: string): string[] => ids.filter((one) => one !== id);
    if (act.kind === 'pull') this.state = { ...this.state, out: [...out, act.id] };
    else if (act.kind === 'restore') this.state = { ...this.state, out: without(out, act.id) };
    else if (act.kind === 'tape') this.state = { ...this.state, taped: [...taped, act.id] };
    else if (act.kind === 'untape') this.state = { ...this.state, taped: without(taped, act.id) };
    else if (act.kind === 'bridge') this.state = { ...this.state, bridged: [...bridged, [act.from, act.to]] };
    else if ('from' in act)
      this.state = { ...this.state, bridged: bridged.filter((pair) => !(pair.includes(act.from) && pair.includes(act.to))) };
  }

  plugIn(): void {
    if (this.state.plugged) return;
    if (this.state.strap) this.add('power', { kind: 'strap-off' });
    this.add('power', { kind: 'plug-in', stillOut: stillOut(this.state) });
    this.state = { ...this.state, strap: false, plugged: true, railsDown: false, verified: false };
  }

  endsIn(): Walk['endsIn'] {
    if (this.state.plugged) return 'plugged';
    return this.state.verified ? 'verified' : this.state.railsDown ? 'rails-down' : 'unplugged';
  }

  moves(): WalkMove[] {
    return this.done.map(({ kind, acts }): WalkMove => ({
      kind,
      acts,
      change: changeOf(acts, this.target),
      waitMinutes: acts.some((act) => act.kind === 'verify')
        ? drainMinutes.verified
        : acts.some((act) => act.kind === 'rails-down')
          ? drainMinutes['rails-down']
          : 0,
    }));
  }
}

function changeOf(acts: readonly Act[], toward: Toward): BodyOf<'set.changed'> {
  const ids = (kind: Act['kind']): string[] => acts.flatMap((act) => (act.kind === kind && 'id' in act ? [act.id] : []));
  const pairs = (kind: 'bridge' | 'unbridge'): [string, string][] =>
    acts.flatMap((act) => (act.kind === kind && 'from' in act ? [[act.from, act.to] satisfies [string, string]] : []));
  const has = (kind: Act['kind']): boolean => acts.some((act) => act.kind === kind);
  const stage = acts.find((act) => act.kind === 'open')?.stage;
  const plugIn = acts.find((act) => act.kind === 'plug-in');
  const some = <T>(name: string, list: readonly T[]): Record<string, readonly T[]> => (list.length > 0 ? { [name]: list } : {});
  return {
    kind: 'set.changed',
    v: 3,
    ...(has('unplug') ? { plugged: false } : {}),
    ...(has('rails-down') ? { railsDown: true } : {}),
    ...(has('verify') ? { verified: true } : {}),
    ...(stage === undefined ? {} : { stage }),
    ...(has('strap-on') ? { strap: true } : {}),
    ...some('restored', ids('restore')),
    ...some('pulled', ids('pull')),
    ...some('bridged', pairs('bridge')),
    ...some('unbridged', pairs('unbridge')),
    ...some('taped', ids('tape')),
    ...some('untaped', ids('untape')),
    ...(has('strap-off') ? { strap: false } : {}),
    ...(plugIn ? { plugged: true, ...some('stillOut', plugIn.stillOut) } : {}),
    toward,
  };
}
