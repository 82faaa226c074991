/**
 * From levels to lit and dark: room light that drifts, mains flicker folded down by the frame rate, noise, and a light of two states.
 *
 * level = baseline(t) + flicker(t) + contrast x lit(t) + noise. Given lit(t), baseline and contrast follow from a partially linear
 * regression (Robinson, 1988): both sides are taken against their own smooth course, so that a slow baseline costs no contrast. Given
 * those, lit(t) follows from a hidden Markov chain of two states (forward-backward; Rabiner, 1989). The two are repeated in turn, from
 * several beginnings; the likeliest end is kept.
 */
import { clamp, forwardBackward, otsuThreshold, pace, quantile } from './chain.ts';
import { Smoother } from './smooth.ts';
import type { LightTrace } from './trace.ts';
import type { LightColour } from './words.ts';

// Taken once: looked up millions of times, and slow to find where a test runs in a context of its own.
const { cos, exp, floor, log, max, min, sin, sqrt } = Math;

/** A recording made into lit and dark, sample by sample. */
export interface LitCourse {
  readonly timesS: Float64Array;
  /** Chance of being lit, for each sample. */
  readonly lit: Float64Array;
  /** Log odds of lit against dark that each sample alone gives. */
  readonly evidence: Float64Array;
  readonly baseline: Float64Array;
  /** Of the samples of the course, where known: fewer than the trace's where frames were many. */
  readonly colours?: NonNullable<LightTrace['colours']>;
  /** Of the lit level over the dark one, in the trace's unit; 0 where only one state was seen. */
  readonly contrast: number;
  readonly noise: number;
  /** Flicker taken off, hertz as the frames looked at fold it. */
  readonly flickerHertz: readonly number[];
  /** Log likelihood gained over a light that never changes, for each sample. */
  readonly gain: number;
}

/** Slow changes of the room are those slower than this, seconds: longer than a flash, shorter than a passing cloud. */
const roomTimeS = 1.6;
/** Share of samples that fit neither state (a glint, a hand), and how far out they may lie in units of noise. */
const strayShare = 0.01;
const strayWidth = 20;
/** Room light changes by about this share of the contrast each second (the scale of a penalty, not a bound). */
const roomRate = 0.15;
const firstRounds = 3;
const lastRounds = 3;
/** Of a long recording two rounds show which beginning is the right one. */
const longRecord = 1200;
/** Lines of flicker looked for, at most; each is taken only where it explains this share of the residual's variance. */
const flickerLines = 2;
const flickerShare = 0.12;
/** Slower than this the baseline follows, hertz. */
const slowestFlicker = 0.15;
const stretchS = 2;

interface Flicker {
  readonly values: Float64Array;
  readonly hertz: readonly number[];
}

interface Fit {
  lit: Float64Array;
  evidence: Float64Array;
  baseline: Float64Array;
  contrast: number;
  noise: number;
  flicker: Flicker;
  logLikelihood: number;
}

/**
 * One light in a recording: drifting room, mains flicker, contrast and noise fitted in turn with a two-state Markov chain. Times in
 * seconds, levels in any unit linear in brightness.
 */
export class LightModel {
  readonly #times: Float64Array;
  readonly #levels: Float64Array;
  readonly #colourEvidence: Float64Array | undefined;
  readonly #smoother: Smoother;
  readonly #smoothLevels: Float64Array;
  readonly #stay: Float64Array;
  readonly #frameS: number;

  /** `colourEvidence`: log odds of lit that colour alone gives, where colours are known. */
  constructor(times: Float64Array, levels: Float64Array, colourEvidence?: Float64Array) {
    this.#times = times;
    this.#levels = levels;
    this.#colourEvidence = colourEvidence;
    this.#smoother = new Smoother(times, roomTimeS);
    this.#smoothLevels = this.#smoother.apply(levels);
    const { stay, frameS } = pace(times);
    this.#stay = stay;
    this.#frameS = frameS;
  }

  get frameS(): number {
    return this.#frameS;
  }

  fit(): LitCourse {
    const levels = this.#levels;
    const n = levels.length;
    const flat = this.#flat();
    const beginnings: Float64Array[] = [];
    const over = (values: Float64Array): Float64Array => {
      const threshold = otsuThreshold(values);
      return values.map((value) => (value > threshold ? 0.95 : 0.05));
    };
    // Averaged over most of a flash, where frames are many enough: noise falls, flashes stay.
    const averaged = this.#frameS < 0.05 ? new Smoother(this.#times, 0.06).apply(levels) : levels;
    const averagedSlow = this.#smoother.apply(averaged);
    beginnings.push(over(levels));
    beginnings.push(over(averaged.map((level, i) => level - (averagedSlow[i] ?? 0))));
    const low = this.#rollingLow();
    beginnings.push(over(averaged.map((level, i) => level - (low[i] ?? 0))));
    if (this.#colourEvidence) beginnings.push(this.#colourEvidence.map((value) => 1 / (1 + exp(-value))));
    const none: Flicker = { values: new Float64Array(n), hertz: [] };
    let best: Fit | undefined;
    for (const beginning of beginnings) {
      const fit = this.#improve(beginning, none, n > longRecord ? firstRounds - 1 : firstRounds);
      if (fit && (!best || fit.logLikelihood > best.logLikelihood)) best = fit;
    }
    if (best) best = this.#standing(best, none);
    if (best) best = this.#withoutFlicker(best, none);
    if (best) best = this.#improve(best.lit, best.flicker, lastRounds) ?? best;
    if (!best || !(best.contrast > 0)) {
      return {
        timesS: this.#times,
        lit: new Float64Array(n),
        evidence: new Float64Array(n),
        baseline: this.#smoothLevels,
        contrast: 0,
        noise: flat.noise,
        flickerHertz: [],
        gain: 0,
      };
    }
    return {
      timesS: this.#times,
      lit: best.lit,
      evidence: best.evidence,
      baseline: best.baseline,
      contrast: best.contrast,
      noise: best.noise,
      flickerHertz: best.flicker.hertz,
      gain: (best.logLikelihood - flat.logLikelihood) / n,
    };
  }

  /** The same trace as a light that never changes. */
  #flat(): { noise: number; logLikelihood: number } {
    const n = this.#levels.length;
    let sum = 0;
    for (let i = 0; i < n; i++) sum += ((this.#levels[i] ?? 0) - (this.#smoothLevels[i] ?? 0)) ** 2;
    const noise = max(sqrt(sum / n), 1e-12);
    return { noise, logLikelihood: -n * (log(noise) + 0.5 + 0.5 * log(2 * Math.PI)) };
  }

  /** Level that a quarter of the samples of the last and next seconds lie under, on a grid, joined by lines. */
  #rollingLow(): Float64Array {
    const times = this.#times;
    const n = times.length;
    const half = 3;
    const grid: { t: number; level: number }[] = [];
    let from = 0;
    let to = 0;
    const end = times[n - 1] ?? 0;
    for (let t = times[0] ?? 0; t <= end + 0.5; t += 1) {
      while (from < n && (times[from] ?? 0) < t - half) from++;
      while (to < n && (times[to] ?? 0) <= t + half) to++;
      if (to - from > 3) grid.push({ t, level: quantile(this.#levels.slice(from, to).sort(), 0.2) });
    }
    const low = new Float64Array(n);
    let at = 0;
    for (let i = 0; i < n; i++) {
      const t = times[i] ?? 0;
      while (at + 1 < grid.length && (grid[at + 1]?.t ?? 0) < t) at++;
      const a = grid[at];
      const b = grid[at + 1] ?? a;
      if (!a || !b) continue;
      low[i] = b.t > a.t ? a.level + (b.level - a.level) * clamp((t - a.t) / (b.t - a.t), 0, 1) : a.level;
    }
    return low;
  }

  /** The strongest lines of what is left, added up: mains light folded by the frame rate lands anywhere below half of it. */
  #takeFlicker(rest: Float64Array): Flicker {
    const times = this.#times;
    const n = times.length;
    const into = new Float64Array(n);
    const lines: number[] = [];
    const flicker = { values: into, hertz: lines };
    const span = (times[n - 1] ?? 0) - (times[0] ?? 0);
    if (span < 2 * stretchS) return flicker;
    const residual = Float64Array.from(rest);
    for (let line = 0; line < flickerLines; line++) {
      let variance = 0;
      for (const value of residual) variance += value * value;
      const centre = this.#coarseLine(residual, span);
      // About the coarse one as finely as a record of this length resolves, on a thinned record; then once on all of it.
      const thin = max(1, floor(n / 600));
      let best = this.#sine(residual, centre, thin);
      for (let hertz = centre - 0.35; hertz <= centre + 0.35; hertz += 0.5 / span) {
        const one = this.#sine(residual, hertz, thin);
        if (one.power > best.power) best = one;
      }
      const { hertz, power, cosine, sine } = this.#sine(residual, best.hertz, 1);
      if (!(power > flickerShare * variance)) return flicker;
      lines.push(hertz);
      for (let i = 0; i < n; i++) {
        const phase = 2 * Math.PI * hertz * (times[i] ?? 0);
        const value = cosine * cos(phase) + sine * sin(phase);
        into[i] = (into[i] ?? 0) + value;
        residual[i] = (residual[i] ?? 0) - value;
      }
    }
    return flicker;
  }

  /** Least squares of one sine over every `thin`-th sample; its power as for all of them. */
  #sine(residual: Float64Array, hertz: number, thin: number): { hertz: number; power: number; cosine: number; sine: number } {
    let [cc, cs, ss, yc, ys] = [0, 0, 0, 0, 0];
    for (let i = 0; i < residual.length; i += thin) {
      const phase = 2 * Math.PI * hertz * (this.#times[i] ?? 0);
      const c = cos(phase);
      const s = sin(phase);
      const y = residual[i] ?? 0;
      cc += c * c;
      cs += c * s;
      ss += s * s;
      yc += y * c;
      ys += y * s;
    }
    const det = cc * ss - cs * cs;
    if (det < 1e-9 * cc * ss) return { hertz, power: 0, cosine: 0, sine: 0 };
    const cosine = (yc * ss - ys * cs) / det;
    const sine = (ys * cc - yc * cs) / det;
    return { hertz, power: (cosine * yc + sine * ys) * thin, cosine, sine };
  }

  /** Mean periodogram of a few stretches of two seconds (Bartlett, 1948): a line is half a hertz wide in it, so a coarse grid meets it. */
  #coarseLine(residual: Float64Array, span: number): number {
    const times = this.#times;
    const n = times.length;
    const ranges = [0, 1, 2, 3].map((k): [number, number] => {
      const begin = (times[0] ?? 0) + (k * (span - stretchS)) / 3;
      let from = 0;
      while (from < n && (times[from] ?? 0) < begin) from++;
      let to = from;
      while (to < n && (times[to] ?? 0) < begin + stretchS) to++;
      return [from, to];
    });
    let best = { hertz: slowestFlicker, power: 0 };
    for (let hertz = slowestFlicker; hertz <= 0.5 / this.#frameS; hertz += 0.3) {
      let power = 0;
      for (const [from, to] of ranges) {
        let c = 0;
        let s = 0;
        for (let i = from; i < to; i++) {
          const phase = 2 * Math.PI * hertz * (times[i] ?? 0);
          c += (residual[i] ?? 0) * cos(phase);
          s += (residual[i] ?? 0) * sin(phase);
        }
        if (to > from) power += (c * c + s * s) / (to - from);
      }
      if (power > best.power) best = { hertz, power };
    }
    return best.hertz;
  }

  /** Some rounds of level from lit and lit from level; undefined where the two states fall together. */
  #improve(beginning: Float64Array, flicker: Flicker, rounds: number): Fit | undefined {
    let lit = beginning;
    let fit: Fit | undefined;
    for (let round = 0; round < rounds; round++) {
      const next = this.#step(lit, flicker);
      if (!next) return undefined;
      fit = next;
      lit = next.lit;
    }
    return fit;
  }

  /** A light that stands before or after its code is easily taken for the room: tried as lit from the last rise on, and to the first fall. */
  #standing(fit: Fit, flicker: Flicker): Fit {
    const { lit } = fit;
    const n = lit.length;
    let last = n - 1;
    while (last > 0 && !((lit[last] ?? 0) > 0.5 && (lit[last - 1] ?? 0) <= 0.5)) last--;
    let first = 1;
    while (first < n && !((lit[first - 1] ?? 0) > 0.5 && (lit[first] ?? 0) <= 0.5)) first++;
    let best = fit;
    for (const [from, to] of [
      [last, n],
      [0, first],
    ] as const) {
      if (to - from < 3 || to - from > n - 3) continue;
      const tried = this.#improve(
        best.lit.map((chance, i) => (i >= from && i < to ? 0.999 : chance)),
        flicker,
        2,
      );
      if (tried && tried.logLikelihood > best.logLikelihood) best = tried;
    }
    return best;
  }

  /** What is left once the light and the room are taken off: looked through for flicker, and the light read again without it. */
  #withoutFlicker(fit: Fit, flicker: Flicker): Fit {
    const rest = this.#levels.map(
      (level, i) => level - (fit.baseline[i] ?? 0) + (flicker.values[i] ?? 0) - fit.contrast * (fit.lit[i] ?? 0),
    );
    const found = this.#takeFlicker(rest);
    const again = this.#improve(fit.lit, found, 2);
    return again && again.logLikelihood > fit.logLikelihood ? again : fit;
  }

  #step(lit: Float64Array, flicker: Flicker): Fit | undefined {
    const n = lit.length;
    const levels = this.#levels.map((level, i) => level - (flicker.values[i] ?? 0));
    const smoothLevels = this.#smoother.apply(levels);
    const smoothLit = this.#smoother.apply(lit);
    let product = 0;
    let square = 0;
    for (let i = 0; i < n; i++) {
      const x = (lit[i] ?? 0) - (smoothLit[i] ?? 0);
      product += x * ((levels[i] ?? 0) - (smoothLevels[i] ?? 0));
      square += x * x;
    }
    if (square < 0.5) return undefined;
    const contrast = product / square;
    if (!(contrast > 0)) return undefined;
    const baseline = smoothLevels.map((level, i) => level - contrast * (smoothLit[i] ?? 0));
    let sum = 0;
    let spread = 0;
    for (let i = 0; i < n; i++) {
      const l = lit[i] ?? 0;
      const rest = (levels[i] ?? 0) - (baseline[i] ?? 0);
      sum += (1 - l) * rest * rest + l * (rest - contrast) ** 2;
      spread += 1;
    }
    // Soft edges and quantised levels keep it from being nothing.
    const noise = max(sqrt(sum / spread), contrast * 0.04, 1e-12);
    return this.#chain(levels, baseline, contrast, noise, flicker);
  }

  #chain(levels: Float64Array, baseline: Float64Array, contrast: number, noise: number, flicker: Flicker): Fit {
    const n = levels.length;
    const evidence = new Float64Array(n);
    const dark = new Float64Array(n);
    const stray = strayShare / strayWidth;
    for (let i = 0; i < n; i++) {
      const z0 = ((levels[i] ?? 0) - (baseline[i] ?? 0)) / noise;
      const z1 = z0 - contrast / noise;
      // Beyond the one state or the other is as good as at it: a flash may be brighter than the usual.
      const p0 = exp(-0.5 * max(z0, -1) ** 2) * 0.3989 + stray;
      const p1 = exp(-0.5 * min(z1, 1) ** 2) * 0.3989 + stray;
      dark[i] = log(p0 / noise);
      evidence[i] = log(p1 / p0) + (this.#colourEvidence?.[i] ?? 0);
    }
    const { lit, logLikelihood: gained } = forwardBackward(evidence, this.#stay);
    let logLikelihood = gained;
    for (const one of dark) logLikelihood += one;
    // A room that had to follow the light's own steps is no likely room.
    for (let i = 1; i < n; i++) {
      const dt = max((this.#times[i] ?? 0) - (this.#times[i - 1] ?? 0), 1e-3);
      const rate = ((baseline[i] ?? 0) - (baseline[i - 1] ?? 0)) / dt / (roomRate * contrast);
      logLikelihood -= 0.5 * rate * rate * dt;
    }
    const whole = baseline.map((level, i) => level + (flicker.values[i] ?? 0));
    return { lit, evidence, baseline: whole, contrast, noise, flicker, logLikelihood };
  }
}

/** Log odds that colour gives to "this light is lit": its own colour, another, or none told. */
const colourWeight = 2.2;

const colourEvidence = (colours: NonNullable<LightTrace['colours']>, colour: LightColour): Float64Array =>
  Float64Array.from(colours, (one) => (one === colour ? colourWeight : one === undefined ? -colourWeight / 2 : -colourWeight));

/** Above this rate two frames are taken for one: half the work, and the same light. */
const enoughFps = 45;

/** Neighbours joined two by two, where frames are many. */
function thinned(trace: LightTrace): LightTrace {
  const { timesS, levels, colours } = trace;
  const n = timesS.length;
  const span = (timesS[n - 1] ?? 0) - (timesS[0] ?? 0);
  if (n < 200 || n / span < enoughFps) return trace;
  const pairs = Array.from({ length: n >> 1 }, (_, i) => 2 * i);
  const mean = (values: readonly number[], i: number): number => ((values[i] ?? 0) + (values[i + 1] ?? 0)) / 2;
  return {
    timesS: pairs.map((i) => mean(timesS, i)),
    levels: pairs.map((i) => mean(levels, i)),
    ...(colours ? { colours: pairs.map((i) => (colours[i] === colours[i + 1] ? colours[i] : undefined)) } : {}),
  };
}

/** The course of the light, by its level; with a colour, helped by where that colour was seen. */
export function litCourse(filmed: LightTrace, colour?: LightColour): LitCourse & { frameS: number } {
  const trace = thinned(filmed);
  const evidence = colour !== undefined && trace.colours ? colourEvidence(trace.colours, colour) : undefined;
  const model = new LightModel(Float64Array.from(trace.timesS), Float64Array.from(trace.levels), evidence);
  return { ...model.fit(), frameS: model.frameS, ...(trace.colours ? { colours: trace.colours } : {}) };
}

/** The course of the light of one colour by colour alone: another light beside it makes the level say nothing. */
export function colourCourse(trace: LightTrace, colour: LightColour): LitCourse & { frameS: number } {
  const timesS = Float64Array.from(trace.timesS);
  const { stay, frameS } = pace(timesS);
  const evidence = colourEvidence(trace.colours ?? [], colour);
  const { lit, logLikelihood } = forwardBackward(evidence, stay);
  const levels = Float64Array.from(trace.levels);
  return {
    timesS,
    lit,
    evidence,
    baseline: levels.map(() => 0),
    contrast: 1,
    noise: 0.3,
    flickerHertz: [],
    gain: logLikelihood / timesS.length,
    frameS,
  };
}
