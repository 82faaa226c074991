/**
 * Workshops the pack hasn't seen. Faults come as often as the trade says, and what a set shows of its fault is drawn around shares that
 * other hands put down ("common practice, no source"), not from the pack: `varied` around them, `flat` from anything physics allows.
 * Each kind of set draws shares of its own. Not edited after the pack was first measured with it.
 */
import type { Family, Layout } from '@veglia/core/knowledge';
import { simulatedFaults, simulatedHome } from '../set/set.ts';
import { chance, pick, randomFrom, seedOf, type Random } from '../set/random.ts';
import type { Notice } from '../set/scene.ts';
import type { Reaction } from '../set/shows.ts';
import { trade } from './trade.ts';

/** How far sets differ from the trade’s shares. */
export const worlds = ['varied', 'flat'] as const;
/** One of `worlds`. */
export type World = (typeof worlds)[number];

/** A set drawn from a world. */
export interface WorldCase {
  readonly layoutId: string;
  /** What the bench can know of it; undefined: a family nobody has written down, without a blink table. */
  readonly familyId: string | undefined;
  /** What it really is. */
  readonly family: Family;
  readonly faults: readonly string[];
  readonly reactions: ReadonlyMap<string, Reaction>;
  readonly meterOff: number;
  readonly seed: number;
}

/** Share of wrong answers, of sets with a second fault, of sets whose family is known; a meter's error; weight of the trade's shares. */
export const worldErrors = 0.05;
const secondFaults = 0.05;
const knownFamilies = 0.5;
const meterError = 0.03;
const weight = 8;
/** How often a code shows beside another symptom, where a set has one for it. */
const codeShown = 0.35;
/** Panel-side faults that are dark with sound: how often the light is on behind (common practice, no source). */
const behind: Readonly<Record<string, number>> = {
  'load-short': 0.1,
  'bias-trip': 0.2,
  'clock-short': 0.2,
  'picture-dead': 0.4,
  'film-dead': 0.5,
  'film-across': 0.5,
  'bond-loose': 0.5,
  'half-dead': 0.6,
  'glass-broken': 0.7,
  setting: 0.8,
  'source-missing': 1,
};

const { words, classes, faults } = trade;
const traitIds = ['light.defaults-on', 'tcon.carries-light-command', 'main.waits-for-panel', 'code.names-missing-board'];

/** Weight of a fault in a layout; 0 where the layout has no such thing. */
function frequencyOf(id: string, layout: Layout): number {
  const frequency = faults[id]?.frequency ?? {};
  const kind = layout.id === 'oled' || layout.id === 'plasma' ? layout.id : 'lcd';
  const word = frequency[layout.id] ?? frequency[kind];
  const home = simulatedHome(id);
  const place = home === undefined ? undefined : (layout.merges[home] ?? home);
  return word === undefined || place === undefined || !layout.assemblies.includes(place) ? 0 : (words[word] ?? 0);
}

function byWeight<T>(items: readonly T[], weights: readonly number[], at: number): T | undefined {
  let left = at * weights.reduce((a, b) => a + b, 0);
  return items.find((_, index) => (left -= weights[index] ?? 0) < 0) ?? items.at(-1);
}

/** Gamma(shape, 1) by Marsaglia and Tsang, ACM TOMS 26 (2000) 363; below shape 1 by the power of one more uniform. */
export function gamma(shape: number, random: Random): number {
  if (shape < 1) return gamma(shape + 1, random) * Math.pow(1 - random(), 1 / shape);
  const d = shape - 1 / 3;
  const c = 1 / Math.sqrt(9 * d);
  for (;;) {
    const x = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    const v = Math.pow(1 + c * x, 3);
    if (v > 0 && Math.log(1 - random()) < 0.5 * x * x + d - d * v + d * Math.log(v)) return d * v;
  }
}

/** Self-lit screens show some things as others. */
const asSeen = (complaint: string, { showsAs }: Layout): string => showsAs[complaint] ?? complaint;

function reactionOf(fault: string, layout: Layout, kindOfSet: string, world: World, worldSeed: number, seed: number): Reaction {
  const random = randomFrom(seedOf(seed, `reaction|${fault}`));
  const mix = Object.entries(faults[fault]?.classes ?? {});
  const kind =
    byWeight(
      mix,
      mix.map(([, share]) => share),
      random(),
    )?.[0] ?? '';
  const shares = (layout.id === 'oled' ? classes[`${kind}@oled`] : undefined) ?? classes[kind] ?? {};
  // One kind of set reacts in one way or two, another kind in others: drawn once for the kind.
  const drawn = randomFrom(seedOf(worldSeed, `${world}|${kindOfSet}|${kind}`));
  const entries = Object.entries(shares).map(([complaint, share]) => ({
    complaint: asSeen(complaint, layout),
    share: gamma(world === 'varied' ? weight * share : 1, drawn),
  }));
  const shows =
    byWeight(
      entries,
      entries.map(({ share }) => share),
      random(),
    )?.complaint ?? 'standby-no-start';
  return {
    shows,
    kind,
    lightBehind: chance(random, behind[kind] ?? 0),
    lightFirst: chance(random, 0.5),
    side: pick(random, ['left', 'right']),
    notice: shows === 'blinking' || (codeShows.has(shows) && chance(random, codeShown)) ? noticeOf(kind) : undefined,
  };
}

const codeShows = new Set(['starts-then-stops', 'flash-then-dark', 'standby-no-start']);

function noticeOf(kind: string): Notice {
  if (kind.startsWith('light') || kind === 'lamp-worn' || kind === 'driver-trips') return 'light';
  if (kind === 'sustain-short' || kind === 'sustain-missing') return 'sustain';
  if (kind === 'address-short') return 'address';
  if (kind === 'audio-short') return 'sound';
  if (kind === 'fan-worn') return 'fan';
  if (kind === 'panel-supply-missing') return 'panel-supply';
  if (kind === 'boot-bad' || kind === 'storage-worn') return 'memory';
  if (kind.startsWith('main') || kind === 'software' || kind.startsWith('key')) return 'main';
  if (['standby-weak', 'rails-missing', 'rail-sags', 'supply-dried'].includes(kind)) return 'rail';
  return 'panel';
}

/** Case number `index` of a world. `layouts` and `families` are what the shop's pack has: places, not probabilities. */
export function drawWorldCase(
  index: number,
  world: World,
  worldSeed: number,
  layouts: readonly { readonly layout: Layout; readonly weight: number }[],
  families: readonly Family[],
): WorldCase {
  const seed = seedOf(worldSeed, `case ${index}`);
  const random = randomFrom(seedOf(seed, 'draw'));
  const layout = byWeight(
    layouts,
    layouts.map((one) => one.weight),
    random(),
  )?.layout;
  if (!layout) throw new RangeError('no layout to draw from');
  const own = families.filter((family) => family.layouts.includes(layout.id));
  const known = chance(random, knownFamilies) ? own[Math.floor(random() * own.length)] : undefined;
  const stranger = 1 + Math.floor(random() * 12);
  const kindOfSet = known?.id ?? `${layout.id}|${stranger}`;
  const traits = Object.fromEntries(
    // A set without a T-con waits for none.
    traitIds.map(
      (id) =>
        [
          id,
          (id.includes('panel') || id.includes('tcon')) && layout.assemblies.includes('logic')
            ? 'no'
            : randomFrom(seedOf(worldSeed, `${kindOfSet}|${id}`))() < 0.5
              ? 'yes'
              : 'no',
        ] as const,
    ),
  );
  const plain = own[0];
  if (!plain) throw new RangeError(`no family of ${layout.id} to take a start from`);
  const family: Family = known ?? { ...plain, id: `stranger.${stranger}`, traits, blink: [] };
  const ids = simulatedFaults.filter((id) => frequencyOf(id, layout) > 0);
  const weights = ids.map((id) => frequencyOf(id, layout));
  const first = byWeight(ids, weights, random()) ?? '';
  const others = ids.filter((id) => simulatedHome(id) !== simulatedHome(first));
  const second = chance(random, secondFaults)
    ? byWeight(
        others,
        others.map((id) => frequencyOf(id, layout)),
        random(),
      )
    : undefined;
  const present = second === undefined ? [first] : [first, second];
  return {
    layoutId: layout.id,
    familyId: known?.id,
    family,
    faults: present,
    reactions: new Map(present.map((id) => [id, reactionOf(id, layout, kindOfSet, world, worldSeed, seed)])),
    meterOff: (random() < 0.5 ? -1 : 1) * meterError,
    seed,
  };
}
