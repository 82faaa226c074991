/**
 * A TV that can be broken: a layout, perhaps a family, faults put in by physics, a seed. It executes a pack's procedures step
 * by step and answers by what would be seen and read; it knows no test by name and no likelihood. The same set with the
 * same seed gives the same answer to the same procedure, whatever was asked before.
 */
import { forcingOf, type Family, type Layout, type Repair, type Step, type TestDefinition } from '@veglia/core/knowledge';
import { emptyBench, type BenchState } from './bench.ts';
import { healthyBody, type Body } from './body.ts';
import { chipIn, type Chip } from './chip.ts';
import { defects, type Defect } from './faults.ts';
import { showOn, type Asked, type Typed } from './onInstrument.ts';
import { outcomeOf, type Observation, type Reading } from './observe.ts';
import { healthyOhms, ohmsAt } from './ohms.ts';
import { propagate, type Ask } from './propagate.ts';
import { chance, randomFrom, seedOf } from './random.ts';
import type { Build, Scene } from './scene.ts';
import { acts, asReacted, lightKinds, pictureComplaints, type Reaction } from './shows.ts';

/** Which set, and what is wrong with it. */
export interface SetOptions {
  readonly layout: Layout;
  readonly family?: Family | undefined;
  /** Fault ids of the pack; each has to be one the simulator can make. */
  readonly faults: readonly string[];
  readonly seed: number;
  /** Fault id -> how this very set shows it; left out: as its physics alone would. */
  readonly reactions?: ReadonlyMap<string, Reaction>;
  /** Relative error of this bench's meter, the same in every reading: 0.03 reads 3 % high. */
  readonly meterOff?: number;
}

type RenewedThing = Pick<Repair, 'assembly' | 'kind' | 'part'>;

/** What a repair did to the symptom. */
export type RepairResult = 'cured' | 'unchanged' | 'changed';

/** What a test shows. */
export interface Answer {
  readonly outcome: string;
  /** What was read, for the record. */
  readonly readings: readonly Reading[];
}

/** Share of new parts that are themselves no good, and of part repairs that fail (values from memory). */
const deadOnArrival = 0.04;
const partRepairFails = 0.12;
const cleaningFails = 0.12;
/** Noise of a reading, relative standard deviation about. */
const meterNoise = 0.01;

/** Ids of faults that can be put into a set. */
export const simulatedFaults: readonly string[] = Object.keys(defects);
/** The assembly whose renewal ends it, before a layout merges it into another; undefined: no fault of the simulator. */
export const simulatedHome = (fault: string): string | undefined => defects[fault]?.home;

/** A set with a fault, to be worked on. */
export class SimulatedSet {
  readonly #build: Build;
  readonly #seed: number;
  #present: { id: string; defect: Defect }[];
  #body: Body;
  readonly #reactions: ReadonlyMap<string, Reaction>;
  readonly #meterOff: number;
  #repairs = 0;

  /** Throws RangeError on a fault the simulator can't make, or one the layout has no place for. */
  constructor({ layout, family, faults, seed, reactions = new Map(), meterOff = 0 }: SetOptions) {
    this.#build = { layout, family };
    this.#reactions = reactions;
    this.#meterOff = meterOff;
    this.#seed = seed;
    this.#present = faults.map((id) => {
      const defect = defects[id];
      if (!defect) throw new RangeError(`the simulated set can't have ${id}`);
      if (!layout.assemblies.includes(this.#place(defect.home))) throw new RangeError(`${layout.id} has no place for ${id}`);
      return { id, defect };
    });
    this.#body = this.#bodyNow();
  }

  #place(home: string): string {
    return this.#build.layout.merges[home] ?? home;
  }

  #bodyNow(): Body {
    const body = healthyBody();
    for (const { id, defect } of this.#present) defect.apply(body, randomFrom(seedOf(this.#seed, id)));
    return body;
  }

  /** Fault ids still in the set. */
  get present(): readonly string[] {
    return this.#present.map(({ id }) => id);
  }

  /** What its owner would report; undefined when nothing is wrong that shows. */
  complaint(): string | undefined {
    return this.#complaintIn(running());
  }

  #complaintIn(bench: BenchState): string | undefined {
    const body = this.#bodyWith(bench);
    const scene = this.#sceneOf(bench, body.ownerUses);
    const own = complaintOf(this.#build, body, scene);
    const reaction = own === undefined || this.#reactions.size === 0 ? undefined : this.#acting(bench, body.ownerUses);
    if (!reaction) return own;
    // Where the bench itself leaves no picture, that is what is complained of.
    const bare = propagate(this.#build, healthyBody(), bench, 'any');
    const byBench = pictureComplaints.has(reaction.shows) ? complaintOf(this.#build, healthyBody(), bare) : undefined;
    return byBench ?? (bare.alive ? reaction.shows : own);
  }

  /** Its start-up memory, as a programmer meets it. */
  chip(): Chip {
    return chipIn(this.#body, this.#seed);
  }

  /** The blink code as counted by a careful eye; undefined where it doesn't blink. */
  blink(): { groups: readonly number[]; colour?: string; after?: string } | undefined {
    const scene = this.#sceneOf(running(), 'any');
    if (scene.indicator !== 'blinking') return undefined;
    const code = this.#build.family?.blink.find((one) => one.notices === scene.notice);
    if (!code) return undefined;
    return {
      groups: code.groups,
      ...(code.colour === undefined ? {} : { colour: code.colour }),
      ...(code.after === undefined ? {} : { after: code.after }),
    };
  }

  /** Executes a procedure. `object` is what `$of` stands for; `errors` the share of answers that come out wrong. */
  perform(test: Pick<TestDefinition, 'do' | 'observe'>, object?: string, errors = 0): Answer {
    const seen = this.#execute(test.do, object);
    const outcome = outcomeOf(test.observe.outcomes, seen);
    // Who does it wrong does it wrong by what he does, not by how the test is called.
    const random = randomFrom(seedOf(this.#seed, `error|${JSON.stringify(test.do)}|${object ?? ''}|${this.#repairs}`));
    if (!chance(random, errors)) return { outcome, readings: seen.readings };
    const others = test.observe.outcomes.filter(({ id }) => id !== outcome);
    return { outcome: others[Math.floor(random() * others.length)]?.id ?? outcome, readings: seen.readings };
  }

  /** What stands in an instrument's fields after one more reading on it; undefined where a set shows nothing on it. */
  onInstrument(instrument: string, typed: Typed = {}, asked: Asked = {}): Record<string, string> | undefined {
    return showOn(instrument, this.#body, this.#seed, typed, asked);
  }

  /** Renews an assembly or a part; what it ends is gone for good. */
  repair({ assembly, kind, part }: RenewedThing): RepairResult {
    const before = this.complaint();
    this.#repairs += 1;
    const random = randomFrom(seedOf(this.#seed, `repair|${assembly}|${part ?? ''}|${this.#repairs}`));
    const fails = chance(
      random,
      kind === 'replace' ? deadOnArrival : kind === 'reseat' ? cleaningFails : kind === 'put-right' ? 0.02 : partRepairFails,
    );
    if (!fails) this.#present = this.#present.filter(({ defect }) => !this.#ends({ assembly, kind, part }, defect));
    this.#body = this.#bodyNow();
    const after = this.complaint();
    return after === undefined ? 'cured' : after === before ? 'unchanged' : 'changed';
  }

  /** Whether a good part would end something that is wrong. */
  wouldCure(repair: RenewedThing): boolean {
    return this.#present.some(({ defect }) => this.#ends(repair, defect));
  }

  #ends({ assembly, kind, part }: RenewedThing, defect: Defect): boolean {
    if (kind === 'drain') return defect.part === 'hung' || defect.part === 'setting' || defect.part === 'software';
    if (part !== undefined) return defect.part === part;
    return this.#place(defect.home) === assembly;
  }

  #execute(steps: readonly Step[], object: string | undefined): Observation {
    const bench = emptyBench();
    const name = (place: string): string => (place === '$of' ? (object ?? place) : place);
    const readings: Reading[] = [];
    let remote = false;
    let key = false;
    let looked: string | undefined;
    let read: Observation['memory'];
    let noise = 0;
    let scene: Scene = this.#sceneOf(bench, 'none');
    // What is seen is seen while it runs: putting back afterwards changes nothing of it.
    let witnessed: { scene: Scene; complaint: string | undefined; changes: boolean } | undefined;
    const ask = (): Ask => (remote && key ? 'any' : remote ? 'remote' : key || bench.on ? 'any' : 'none');
    const witness = (): void => {
      if (!bench.plugged) return;
      scene = this.#sceneOf(bench, ask());
      const touched = bench.tapped.size > 0 || bench.squeezed;
      const still = touched ? this.#sceneOf({ ...bench, tapped: new Set(), squeezed: false }, ask()) : scene;
      const changes =
        touched &&
        (still.picture !== scene.picture || still.light !== scene.light || still.awake !== scene.awake || still.alive !== scene.alive);
      witnessed = { scene, complaint: this.#complaintIn(asRunning(bench)), changes };
    };
    for (const step of steps) {
      if ('unplug' in step) {
        bench.plugged = false;
        bench.on = false;
      } else if ('drain' in step) bench.unpluggedMinutes += 2;
      else if ('pull' in step) for (const item of step.pull) bench.out.add(name(item));
      else if ('restore' in step) {
        for (const item of step.restore) {
          bench.out.delete(name(item));
          bench.taped.delete(name(item));
        }
      } else if ('bridge' in step) bench.bridged.push([step.bridge[0], step.bridge[1]]);
      else if ('force' in step) bench.bridged.push([forcingOf(step.force, this.#build.layout, this.#build.family).from, step.force]);
      else if ('tape' in step) bench.taped.add(step.tape);
      else if ('lift' in step) bench.lifted.add(step.lift);
      else if ('load' in step) bench.loads.set(step.load, step.amperes);
      else if ('power' in step) {
        bench.plugged = true;
        if (step.power === 'on') bench.on = true;
        witness();
      } else if ('press' in step) {
        if (step.press === 'own-button') bench.drained = !bench.plugged;
        else if (step.press === 'remote') remote = true;
        else if (step.press === 'power') {
          key = true;
          bench.presses += 1;
        } else if (step.press === 'update') bench.updated = true;
        else if (step.press === 'reset') bench.reset = true;
        else bench.pressed = step.press;
        witness();
      } else if ('warm' in step) bench.warmth.set(name(step.warm), step.to);
      else if ('chill' in step) bench.warmth.set(name(step.chill), step.to);
      else if ('clean' in step) bench.cleaned.add(name(step.clean));
      else if ('fit' in step) bench.fitted.set(name(step.at), step.fit);
      else if ('supply' in step) {
        bench.supply.add(step.supply);
        // To try a source the set has to be plugged and running.
        if (step.supply === 'known-source') Object.assign(bench, { plugged: true, on: true });
      } else if ('wait' in step) {
        if (bench.plugged) bench.patience += step.wait;
        else bench.unpluggedMinutes += step.wait;
        witness();
      } else if ('tap' in step) {
        for (const contact of Object.keys(this.#body.contacts)) {
          if (this.#body.contacts[contact]?.tapHeals && touches(step.tap, contact)) bench.tapped.add(contact);
        }
        bench.tapped.add(name(step.tap));
        witness();
      } else if ('squeeze' in step) {
        bench.squeezed = true;
        for (const contact of Object.keys(this.#body.contacts)) {
          if (this.#body.contacts[contact]?.tapHeals && touches('frame', contact)) bench.tapped.add(contact);
        }
        witness();
      } else if ('measure' in step) {
        noise += 1;
        readings.push(this.#measure(step, bench, ask(), noise));
      } else if ('read' in step) read = this.#readMemory(step.read, step.times);
      else if ('look' in step || 'listen' in step || 'torch' in step) {
        looked = 'look' in step ? step.look : undefined;
        if ('torch' in step) bench.pressed = 'menu';
        witness();
        if ('listen' in step && step.listen === 'headphones' && witnessed)
          witnessed = { ...witnessed, scene: { ...witnessed.scene, sound: witnessed.scene.headphones } };
      }
    }
    if (witnessed === undefined) witnessed = { scene, complaint: this.complaint(), changes: false };
    return {
      ...witnessed,
      before: { complaint: this.complaint(), notice: this.#sceneOf(running(), 'any').notice },
      readings,
      glass: this.#body.panel.glass,
      signs: this.#signsAt(looked),
      lamp: this.#lampAt(looked, witnessed.scene),
      memory: read,
    };
  }

  /** A known-good board in a place takes that place's faults away for as long as it is there. */
  #sceneOf(bench: BenchState, ask: Ask): Scene {
    const broken = propagate(this.#build, this.#bodyWith(bench), bench, ask);
    const reaction = this.#acting(bench, ask);
    if (!reaction) return broken;
    const hasLight = this.#build.layout.assemblies.includes('strips');
    return asReacted(broken, propagate(this.#build, healthyBody(), bench, ask), reaction, bench, hasLight);
  }

  /**
   * The reaction that shows in this configuration: of the first fault that acts there and doesn't show it by physics alone. Forced lines, a
   * board in main's place and main left out are nothing an owner's set does: physics alone answers.
   */
  #acting(bench: BenchState, ask: Ask): Reaction | undefined {
    const mainNode = this.#build.layout.merges.main ?? 'main';
    const owners = bench.plugged && !bench.out.has(mainNode) && bench.bridged.length === 0 && !bench.fitted.has('main');
    if (!owners || this.#reactions.size === 0) return undefined;
    const swapped = swappedIn(bench);
    for (const { id, defect } of this.#present) {
      const reaction = this.#reactions.get(id);
      if (!reaction || swapped.has(this.#place(defect.home))) continue;
      const body = healthyBody();
      defect.apply(body, randomFrom(seedOf(this.#seed, id)));
      // What is wrong with the picture acts without a light to see it by.
      const seen = lightKinds.includes(reaction.kind) ? bench : withLight(bench);
      const alone = propagate(this.#build, body, seen, ask);
      if (acts(alone, propagate(this.#build, healthyBody(), seen, ask)))
        return complaintOf(this.#build, body, alone) === reaction.shows && this.#present.length === 1 ? undefined : reaction;
    }
    return undefined;
  }

  #bodyWith(bench: BenchState): Body {
    const swapped = swappedIn(bench);
    if (swapped.size === 0) return this.#body;
    const body = healthyBody();
    for (const { id, defect } of this.#present) {
      if (!swapped.has(this.#place(defect.home))) defect.apply(body, randomFrom(seedOf(this.#seed, id)));
    }
    return body;
  }

  #measure(step: Extract<Step, { measure: unknown }>, bench: BenchState, ask: Ask, count: number): Reading {
    const random = randomFrom(seedOf(this.#seed, `meter|${step.at}|${step.in}|${count}`));
    const noisy = (value: number): number => value * (1 + this.#meterOff) * (1 + meterNoise * (random() + random() - 1) * 2);
    const none = { point: step.at, idle: 0, value: 0, peak: 0, steady: true, ohms: undefined, missing: undefined };
    if (step.measure === 'ohms') {
      const ohms = noisy(ohmsAt(step.at, this.#build, this.#body, bench));
      return { ...none, ohms, value: ohms / healthyOhms(step.at) };
    }
    const pressed: Ask = step.in === 'starting' || step.in === 'on' ? 'any' : step.in === 'standby' && step.at === 'key-wire' ? 'any' : ask;
    const scene = this.#sceneOf({ ...bench, plugged: bench.plugged || step.in === 'starting' }, pressed);
    const volts = scene.volts[step.at];
    const missing = scene.missing[step.at];
    if (!volts) return { ...none, missing };
    const scale = noisy(1);
    return { ...none, idle: volts.idle * scale, value: volts.value * scale, peak: volts.peak * scale, steady: volts.steady, missing };
  }

  #readMemory(place: string, times: number): Observation['memory'] {
    const { memory, flash, emmc } = this.#body.main;
    // A start log is seen in the scene of the start.
    if (place === 'serial') return undefined;
    if (place === 'emmc') return emmc.worn ? 'worn' : 'matches';
    if (memory.state === 'dead') return 'missing';
    if (memory.state === 'unsteady') return times > 1 ? 'unsteady' : seedOf(this.#seed, 'first read') % 2 === 0 ? 'differs' : 'matches';
    return flash.damaged === 'no' ? 'matches' : 'differs';
  }

  #lampAt(place: string | undefined, scene: Scene): Observation['lamp'] {
    if (place === 'logic') return scene.logicLamp ? 'lit' : 'dark';
    if (place === 'remote-emitter') return this.#body.remote.emits ? 'lit' : 'dark';
    return undefined;
  }

  #signsAt(place: string | undefined): Observation['signs'] {
    if (place === 'inside') {
      const loose = Object.values(this.#body.contacts).some((contact) => contact.sign);
      return [
        ...(this.#body.signs.burnt ? (['burnt'] as const) : []),
        ...(this.#body.signs.bulged ? (['bulged'] as const) : []),
        ...(loose ? (['loose'] as const) : []),
      ];
    }
    if (place === 'strips') return this.#body.strips.burntMark ? ['burnt'] : [];
    return [];
  }
}

const swappedIn = (bench: BenchState): ReadonlySet<string> =>
  new Set([...bench.fitted].filter(([, kind]) => kind === 'known-good').map(([node]) => node));

const lightParts: readonly string[] = ['driver', 'strips', 'harness.light', 'harness.driver'];
const withLight = (bench: BenchState): BenchState => ({
  ...bench,
  out: new Set([...bench.out].filter((node) => !lightParts.includes(node))),
});

const running = (): BenchState => ({ ...emptyBench(), plugged: true, on: true });

/** The owner's way of trying it, in the bench's configuration: source, cables, warmth as they are, nothing pressed beyond that. */
const asRunning = (bench: BenchState): BenchState => ({
  ...bench,
  plugged: true,
  on: true,
  patience: 0,
  presses: 0,
  pressed: bench.pressed === 'service' ? 'service' : undefined,
});

/** What a touch at one place reaches. */
function touches(place: string, contact: string): boolean {
  if (place === 'frame') return contact.startsWith('harness.panel') || contact === 'harness.picture';
  if (place === 'tcon') return contact.startsWith('harness.panel') || contact === 'harness.picture';
  return place === 'cover' && contact === 'harness.light';
}

/** What its owner would say of a scene. */
export function complaintOf({ layout }: Build, body: Body, scene: Scene): string | undefined {
  const has = (node: string): boolean => layout.assemblies.includes(node);
  if (!scene.awake) return 'dead';
  if (scene.late) return 'slow-start';
  if (scene.restarts) return body.codeNoticed && scene.indicator === 'blinking' ? 'blinking' : 'restart-loop';
  if (!scene.alive) {
    if (body.codeNoticed && scene.indicator === 'blinking') return 'blinking';
    return scene.starts ? 'starts-then-stops' : 'standby-no-start';
  }
  if (has('strips') && scene.light !== 'on' && scene.light !== 'dim') {
    if (body.codeNoticed && scene.indicator === 'blinking') return 'blinking';
    return scene.light === 'flash' ? 'flash-then-dark' : 'sound-dark';
  }
  if (scene.picture === 'none' && scene.input === 'dead') return 'one-input-dead';
  const shown: Partial<Record<Scene['picture'], string>> = {
    none: has('strips') ? 'lit-blank' : 'sound-dark',
    'left-missing': 'half-picture',
    'right-missing': 'half-picture',
    partial: 'half-picture',
    bar: 'film-bar',
    band: 'film-bar',
    line: 'single-line',
    lines: 'many-lines',
    turned: 'wrong-way-round',
    washed: 'many-lines',
    dots: 'faint-or-dots',
    tint: 'faint-or-dots',
  };
  const picture = shown[scene.picture];
  if (picture !== undefined) return picture;
  if (scene.frozen || scene.network === 'dead') return 'app-fault';
  if (!scene.sound) return 'no-sound';
  if (scene.hot || (has('fans') && scene.fan !== 'spins')) return 'hot-or-fan';
  return undefined;
}
