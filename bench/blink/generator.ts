/**
 * Lights that blink, as a camera would see them. Knows nothing of the reader: it writes down a light's course in continuous time, adds
 * the room, lets a camera look at it, and says what was meant.
 */
export type Level = 'light' | 'moderate' | 'heavy';
export type Shape = 'plain' | 'grouped' | 'long-short' | 'coloured' | 'two-colours' | 'then-steady' | 'then-dark';

export interface Trace {
  readonly timesS: number[];
  readonly levels: number[];
  readonly colours?: (Colour | undefined)[];
}
type Colour = 'red' | 'green' | 'white' | 'blue' | 'amber';

export interface Told {
  readonly trace: Trace;
  readonly groups: readonly number[];
  readonly shape: Shape;
  readonly fps: number;
  readonly flashesS: readonly number[];
  readonly untilS: number;
}

/** Small, seedable, good enough for a bench (mulberry32). */
export function randomOf(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t = (t + Math.imul(t ^ (t >>> 7), t | 61)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** By level: noise, drift, flicker in units of contrast; share of frames dropped; unevenness of frames; contrast against full scale. */
const rough = {
  light: { noise: [0.02, 0.08], drift: [0, 0.3], flicker: [0, 0.08], drops: [0, 0.01], uneven: 0.05, contrast: [0.3, 0.9] },
  moderate: { noise: [0.08, 0.2], drift: [0.3, 1], flicker: [0.05, 0.25], drops: [0.01, 0.04], uneven: 0.15, contrast: [0.12, 0.4] },
  heavy: { noise: [0.25, 0.7], drift: [0.8, 2.5], flicker: [0.2, 0.7], drops: [0.04, 0.12], uneven: 0.3, contrast: [0.03, 0.12] },
} as const;

interface Flash {
  readonly onS: number;
  readonly offS: number;
  readonly colour?: Colour;
}

/** `lengthS`: how long it is filmed; by default three to four cycles. */
export function blinkingLight(seed: number, level: Level, shape: Shape, fps: number, lengthS?: number): Told {
  const random = randomOf(seed);
  const between = (low: number, high: number): number => low + (high - low) * random();
  const whole = (low: number, high: number): number => Math.floor(between(low, high + 1));
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const frameS = 1 / fps;

  // One flash and then nothing for good is no count of one: told by itself.
  // A flash and a gap each last at least a frame and a half: what is quicker can't be counted by any reader.
  const onS = Math.max(between(0.14, 0.5), 1.6 * frameS);
  const offS = Math.max(onS * between(0.7, 1.5), 1.6 * frameS);
  const partS = offS * between(2, 3);
  const grouped = shape === 'grouped' || shape === 'long-short';
  const once = shape === 'then-steady' || shape === 'then-dark';
  // Groups of one flash each are a plain count by another name: the first has two at least.
  const groups = grouped
    ? [whole(2, 7), whole(1, 7), ...(random() < 0.2 && shape === 'grouped' ? [whole(1, 4)] : [])]
    : [whole(once ? 2 : 1, 15)];
  const pauseS = Math.max(
    between(1.2, 3.2),
    (grouped ? partS : offS) * between(1.8, 2.6),
    groups.length === 1 && groups[0] === 1 ? 1.6 : 0,
  );
  const longS = onS * between(2.4, 3.2);
  const colours: readonly Colour[] = ['red', 'green', 'white', 'blue', 'amber'];
  const colour = pick(colours);
  const other = pick(colours.filter((one) => one !== colour));
  const coloured = shape === 'coloured' || shape === 'two-colours';

  const flashes: Flash[] = [];
  // What is seen once only is filmed from before it begins.
  let t = once ? onS + offS + between(0.4, 1.5) : random() < 0.4 ? -between(0, 6) : between(0.2, 2);
  const cycleS = groups.reduce((sum, n) => sum + n * (onS + offS), 0) + pauseS + (groups.length - 1) * partS;
  const untilS =
    lengthS ?? Math.min(once ? t + cycleS + 6 : Math.max(t, 0) + (shape === 'long-short' ? 4.8 : 3.3) * cycleS + between(0, cycleS), 90);
  const flashTimes: number[] = [];
  for (;;) {
    groups.forEach((count, group) => {
      for (let k = 0; k < count; k++) {
        const length = shape === 'long-short' && group === 0 ? longS : onS;
        // A set's processor keeps time well, not perfectly.
        const slip = normal() * 0.004;
        flashes.push({ onS: t + slip, offS: t + slip + length, ...(coloured ? { colour } : {}) });
        flashTimes.push(t);
        t += length + (k === count - 1 ? (group === groups.length - 1 ? 0 : shape === 'long-short' ? offS : partS) : offS);
      }
    });
    if (once) break;
    t += pauseS;
    if (t > untilS) break;
  }
  if (shape === 'then-steady') flashes.push({ onS: t + pauseS, offS: untilS + 10 });
  // The standby light shines whenever the other doesn't.
  const standby = shape === 'two-colours';

  const { noise, drift, flicker, drops, uneven, contrast } = rough[level];
  const full = between(contrast[0], contrast[1]);
  const noiseLevel = full * between(noise[0], noise[1]);
  const neverDark = full * between(0, 0.4);
  const edgeS = between(0.005, 0.06);
  const roomLevel = between(0.1, 0.6);
  const waves = [1, 2].map(() => ({ size: (full * between(drift[0], drift[1])) / 2, periodS: between(9, 50), phase: between(0, 6.3) }));
  const slope = (full * between(-drift[1], drift[1])) / 60;
  const mains = pick([50, 60]) * (1 + normal() * 0.0004);
  const flickerSize = full * between(flicker[0], flicker[1]);
  const flickerPhase = between(0, 6.3);
  const doubled = random() < 0.8;
  const exposureS = frameS * between(0.2, 0.8);

  const soft = (x: number): number => 1 / (1 + Math.exp(-x / (edgeS / 3)));
  const litAt = (s: number): number => {
    let lit = 0;
    for (const flash of flashes)
      if (s > flash.onS - 0.5 && s < flash.offS + 0.5) lit = Math.max(lit, soft(s - flash.onS) * soft(flash.offS - s));
    return lit;
  };
  const standbyShare = between(0.4, 1.1);
  const timesS: number[] = [];
  const levels: number[] = [];
  const seen: (Colour | undefined)[] = [];
  const dropShare = between(drops[0], drops[1]);
  let dropping = 0;
  for (let frame = 0; frame * frameS < untilS; frame++) {
    const s = frame * frameS + (random() - 0.5) * uneven * frameS;
    if (dropping > 0 || random() < dropShare) {
      dropping = dropping > 0 ? dropping - 1 : random() < 0.25 ? 1 : 0;
      continue;
    }
    if (s < 0) continue;
    // The camera gathers light over its exposure.
    let light = 0;
    let hum = 0;
    for (let k = 0; k < 4; k++) {
      const at = s + ((k + 0.5) / 4) * exposureS;
      light += litAt(at) / 4;
      hum += Math.sin(2 * Math.PI * mains * (doubled ? 2 : 1) * at + flickerPhase) / 4;
    }
    let room = roomLevel + slope * s + flickerSize * hum;
    for (const wave of waves) room += wave.size * Math.sin((2 * Math.PI * s) / wave.periodS + wave.phase);
    const own = neverDark * (1 - light) + (full + neverDark) * light;
    const level2 = standby ? full * (light + standbyShare * (1 - light)) : own;
    timesS.push(Number(s.toFixed(4)));
    levels.push(Number((room + level2 + normal() * noiseLevel).toFixed(5)));
    if (coloured) {
      // A camera in doubt about a colour says now and then the wrong one or none.
      const slips = { light: 0.005, moderate: 0.02, heavy: 0.08 }[level];
      const right = light > 0.5 ? colour : standby ? other : undefined;
      seen.push(random() < slips ? pick([...colours, undefined]) : right);
    }
  }
  return {
    trace: { timesS, levels, ...(coloured ? { colours: seen } : {}) },
    groups,
    shape,
    fps,
    flashesS: flashTimes.filter((s) => s >= 0 && s < untilS),
    untilS,
  };
}

/** A person tapping along: late by a little, missing some, doubling few. */
export function tapsAlong(told: Told, seed: number, jitterS: number, missed: number, doubled: number): number[] {
  const random = randomOf(seed ^ 0x5eed);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  return told.flashesS
    .flatMap((s): number[] => {
      if (random() < missed) return [];
      const at = s + 0.2 + normal() * jitterS;
      return random() < doubled ? [at, at + 0.05 + 0.03 * random()] : [at];
    })
    .sort((a, b) => a - b);
}
