/**
 * How a fault shows where sets of the world differ: the same short makes one set stop and another go dark with sound. Physics says
 * whether the fault acts in this configuration and what meters read at the fault itself; the reaction says what the set does about it.
 */
import type { BenchState } from './bench.ts';
import type { Notice, Picture, Scene, Volts } from './scene.ts';

/** How one set shows its fault, where its physics alone does not say. */
export interface Reaction {
  /** What the owner sees. */
  readonly shows: string;
  /** The fault's own kind: what of the physics stays true whatever the set does about it. */
  readonly kind: string;
  /** Dark with sound: light left on behind a black screen. */
  readonly lightBehind: boolean;
  /** Light comes for an instant before it stops. */
  readonly lightFirst: boolean;
  readonly side: 'left' | 'right';
  /** What the set's software noticed, where it tells. */
  readonly notice: Notice | undefined;
}

/** Points that read what the fault makes of them, whatever else the set does. */
const ownPoints: Readonly<Record<string, readonly string[]>> = {
  'rail-sags': ['main-rail', 'driver-supply', 'sustain', 'address-rail'],
  'no-start-command': ['ps-on'],
  'light-uncommanded': ['bl-on', 'dim'],
  'load-short': ['tcon-input', 'tcon-fuse-out'],
  'light-open': ['led-plug', 'bl-err'],
  'light-limit': ['led-plug', 'bl-err'],
  'light-undriven': ['led-plug', 'bl-err', 'driver-supply'],
  'lamp-worn': ['led-plug', 'bl-err'],
  'driver-trips': ['led-plug', 'bl-err'],
  'picture-dead': ['tcon-input', 'tcon-fuse-out', 'panel-switch', 'picture-pairs'],
  'panel-supply-missing': ['panel-supply', 'tcon-input', 'tcon-fuse-out'],
  'sustain-missing': ['sustain', 'address-rail'],
  'sustain-short': ['sustain'],
  'address-short': ['address-rail'],
  'key-path-dead': ['key-wire'],
  'key-stuck': ['key-wire'],
};
/** Points that physics always tells: what feeds them doesn't ask the set's software. */
const alwaysFed = ['standby', 'bulk'];
/** Complaints about the light. */
export const lightKinds: readonly string[] = [
  'light-open',
  'light-limit',
  'light-undriven',
  'lamp-worn',
  'driver-trips',
  'light-uncommanded',
];
const rails = [
  'main-rail',
  'bl-on',
  'dim',
  'tcon-input',
  'tcon-fuse-out',
  'panel-switch',
  'picture-pairs',
  'led-plug',
  'driver-supply',
  'panel-supply',
  'sustain',
  'address-rail',
  'bl-err',
];

const pictures: Readonly<Record<string, Picture>> = {
  'film-bar': 'bar',
  'bar-across': 'band',
  'single-line': 'line',
  'many-lines': 'lines',
  'wrong-way-round': 'turned',
  'faint-or-dots': 'dots',
};
/** Complaints that a bench without a picture has too. */
export const pictureComplaints: ReadonlySet<string> = new Set(['lit-blank', 'half-picture', 'one-input-dead', ...Object.keys(pictures)]);

/** Whether the fault makes a difference to what this configuration does. */
export function acts(broken: Scene, healthy: Scene): boolean {
  return (
    broken.awake !== healthy.awake ||
    broken.alive !== healthy.alive ||
    broken.starts !== healthy.starts ||
    broken.restarts !== healthy.restarts ||
    broken.late !== healthy.late ||
    broken.light !== healthy.light ||
    broken.sound !== healthy.sound ||
    broken.picture !== healthy.picture ||
    broken.frozen !== healthy.frozen ||
    broken.input !== healthy.input ||
    broken.network !== healthy.network ||
    broken.fan !== healthy.fan ||
    broken.hot !== healthy.hot
  );
}

/** `broken` as this set would show it. Both scenes are of the same bench; `healthy` is what a good set would do there. */
export function asReacted(broken: Scene, healthy: Scene, reaction: Reaction, bench: BenchState, hasLight: boolean): Scene {
  const { shows } = reaction;
  // A slow one comes in the end.
  if (shows === 'slow-start' && (bench.patience >= 3 || bench.presses >= 3)) return healthy;
  if (!healthy.alive) {
    const dead = shows === 'dead' && healthy.awake;
    return {
      ...healthy,
      ...(dead ? { awake: false, indicator: 'off' as const } : {}),
      volts: fedVolts(broken, healthy),
      missing: broken.missing,
    };
  }
  const run = running[shows] ?? 'up';
  const scene: Scene = {
    ...healthy,
    ...(run === 'up' ? {} : stopped(broken, healthy, reaction, run, hasLight)),
    ...(run === 'up' ? changed(broken, healthy, reaction, bench, hasLight) : {}),
    processor: broken.processor,
    logicLamp: broken.logicLamp,
    volts: run === 'up' ? upVolts(broken, healthy, reaction) : downVolts(broken, healthy, reaction, run),
    missing: missingOf(broken, healthy, reaction, run),
  };
  return reaction.notice === undefined
    ? { ...scene, notice: undefined }
    : { ...scene, notice: reaction.notice, indicator: run === 'up' ? scene.indicator : 'blinking' };
}

/** Kinds that leave a rail of the picture side missing, or one of main's own. */
const biasKinds = ['picture-dead', 'bias-trip', 'load-short', 'panel-supply-missing'];
const converterKinds = ['main-rail-missing', 'radio-short'];

function missingOf(broken: Scene, healthy: Scene, { kind }: Reaction, run: Run): Scene['missing'] {
  if (run === 'off') return { bias: 'all', 'main-converters': broken.missing['main-converters'] ?? 'all' };
  if (run !== 'up') return broken.missing;
  const of = (point: string, own: boolean): 'none' | 'one' | 'all' => (own ? broken : healthy).missing[point] ?? 'none';
  return { bias: of('bias', biasKinds.includes(kind)), 'main-converters': of('main-converters', converterKinds.includes(kind)) };
}

type Run = 'up' | 'off' | 'brief' | 'loops';
const running: Readonly<Record<string, Run>> = {
  dead: 'off',
  'standby-no-start': 'off',
  blinking: 'off',
  'slow-start': 'off',
  'starts-then-stops': 'brief',
  'restart-loop': 'loops',
};

function stopped(broken: Scene, healthy: Scene, { shows, lightFirst }: Reaction, run: Run, hasLight: boolean): Partial<Scene> {
  return {
    awake: shows !== 'dead',
    indicator: shows === 'dead' ? 'off' : shows === 'blinking' ? 'blinking' : 'steady',
    clicks: run === 'off' && !broken.starts ? broken.clicks : shows === 'dead' ? false : healthy.clicks,
    reacts: run === 'off' ? (broken.alive ? { key: false, remote: false } : broken.reacts) : healthy.reacts,
    starts: run !== 'off',
    alive: false,
    late: shows === 'slow-start',
    restarts: run === 'loops',
    log: run === 'off' ? (broken.log === 'runs' ? 'stops' : broken.log) : 'stops',
    light: run !== 'off' && hasLight && lightFirst && healthy.light === 'on' ? 'flash' : 'off',
    sound: false,
    headphones: false,
    picture: 'none',
    input: 'dead',
    network: 'dead',
    frozen: false,
    hot: false,
  };
}

function changed(broken: Scene, healthy: Scene, reaction: Reaction, bench: BenchState, hasLight: boolean): Partial<Scene> {
  const { shows, kind } = reaction;
  const plain = bench.pressed === 'menu' || bench.pressed === 'pattern' || bench.pressed === 'service';
  if (shows === 'sound-dark' || shows === 'flash-then-dark' || shows === 'lit-blank') {
    const dark = hasLight && shows !== 'lit-blank' && !(shows === 'sound-dark' && reaction.lightBehind);
    const faint = dark && lightKinds.includes(kind) && bench.pressed === 'menu' && healthy.picture !== 'none';
    // A set that plays another source or its own menu shows it, where only the source is missing.
    if ((kind === 'source-missing' || kind === 'setting') && broken.picture === 'good') return {};
    return {
      light: !dark ? healthy.light : shows === 'flash-then-dark' && healthy.light === 'on' ? 'flash' : 'off',
      picture: faint ? 'faint' : 'none',
    };
  }
  const shown = shows === 'half-picture' ? halfOf(broken, reaction) : pictures[shows];
  if (shown !== undefined) {
    const own = (kind === 'source-missing' || kind === 'input-dead') && plain;
    return healthy.picture === 'good' && !own ? { picture: shown } : {};
  }
  if (shows === 'one-input-dead')
    return plain || bench.supply.has('other-input') || (kind === 'source-missing' && bench.supply.has('known-source'))
      ? {}
      : { input: 'dead', picture: 'none' };
  if (shows === 'no-sound')
    return { sound: false, headphones: kind === 'sound-open' || kind === 'audio-short' ? broken.headphones : false };
  if (shows === 'app-fault') {
    if (kind === 'radio-short' || kind === 'radio-dead') return { network: 'dead' };
    if (kind === 'network-outside') return bench.supply.has('known-network') ? {} : { network: 'dead' };
    return { frozen: true, picture: bench.pressed === 'menu' ? 'frozen' : healthy.picture };
  }
  if (shows === 'hot-or-fan') return { hot: true, fan: kind === 'fan-worn' ? broken.fan : healthy.fan };
  return {};
}

function halfOf(broken: Scene, { side }: Reaction): Picture {
  return broken.picture === 'left-missing' || broken.picture === 'right-missing' ? broken.picture : `${side}-missing`;
}

const fedVolts = (broken: Scene, healthy: Scene): Readonly<Record<string, Volts>> => ({
  ...healthy.volts,
  ...Object.fromEntries(alwaysFed.flatMap((point) => (broken.volts[point] ? [[point, broken.volts[point]]] : []))),
});

function upVolts(broken: Scene, healthy: Scene, { kind }: Reaction): Readonly<Record<string, Volts>> {
  const own = (ownPoints[kind] ?? []).filter((point) => point !== 'main-rail' && point !== 'ps-on');
  return { ...healthy.volts, ...Object.fromEntries(own.flatMap((point) => (broken.volts[point] ? [[point, broken.volts[point]]] : []))) };
}

function downVolts(broken: Scene, healthy: Scene, { kind }: Reaction, run: Run): Readonly<Record<string, Volts>> {
  const own = ownPoints[kind] ?? [];
  const off: Volts = { idle: 0, value: 0, peak: 0, steady: false };
  const volts: Record<string, Volts> = { ...fedVolts(broken, healthy) };
  for (const point of ['key-wire', 'ps-on', ...rails]) {
    const good = healthy.volts[point];
    const bad = broken.volts[point];
    if (!good || !bad) continue;
    // Physics already has it down, or it is the fault's own place: that is what the meter reads.
    if (own.includes(point) || !broken.alive) volts[point] = bad;
    else if (point === 'key-wire') volts[point] = good;
    else if (run === 'off') volts[point] = point === 'ps-on' ? { ...off, peak: 1 } : off;
    else volts[point] = { idle: 0, value: run === 'loops' ? 0.4 * good.value : 0, peak: good.peak, steady: false };
  }
  return volts;
}
