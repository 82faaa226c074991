/** A rail that was logged while the set starts: there and steady, there and gone, coming and going, or never there. */
import { nothingThere } from './judge.ts';

/** Volts at times, seconds from any beginning; times never decrease. */
export interface CaptureSample {
  readonly timeS: number;
  readonly volts: number;
}

/** What a log amounts to. */
export const captureKinds = ['steady', 'trips', 'pulsing', 'absent', 'too-short'] as const;
/** A log, judged. */
export interface Capture {
  readonly kind: (typeof captureKinds)[number];
  /** The largest in size, with its sign, volts. */
  readonly peakVolts: number;
  /** What a slow meter shows of it, volts. */
  readonly meanVolts: number;
  /** Volts at the end: of a steady rail, what it is. */
  readonly endVolts: number;
  /** Seconds from the first sample in which it was there to the first in which it was gone again. */
  readonly thereS?: number;
  /** How often it came. */
  readonly pulses?: number;
  /** Samples in which it was there; one alone asks for another log. */
  readonly samplesThere: number;
}

/** Fewer samples tell nothing (value of ours). */
const fewestSamples = 6;
/** There above half of the peak, gone below this share of it: two limits, so that ripple is neither (values of ours). */
const hereShare = 0.5;
const goneShare = 0.4;

/** Throws RangeError for times that run backwards. */
export function judgeCapture(samples: readonly CaptureSample[]): Capture {
  samples.forEach(({ timeS }, index) => {
    if (index > 0 && timeS < (samples[index - 1]?.timeS ?? 0)) throw new RangeError(`sample ${index + 1} is before the one before it`);
  });
  const size = samples.map(({ volts }) => Math.abs(volts));
  const peak = size.reduce((most, one) => Math.max(most, one), 0);
  const peakVolts = samples.find(({ volts }) => Math.abs(volts) === peak)?.volts ?? 0;
  const endVolts = samples.at(-1)?.volts ?? 0;
  const meanVolts = samples.reduce((sum, { volts }) => sum + volts, 0) / Math.max(samples.length, 1);
  const samplesThere = size.filter((one) => one >= Math.max(nothingThere, peak * hereShare)).length;
  const common = { peakVolts, meanVolts, endVolts, samplesThere };
  if (samples.length < fewestSamples) return { kind: 'too-short', ...common };
  if (peak < nothingThere) return { kind: 'absent', ...common };
  const { rises, falls } = edges(size, peak);
  const down = (size.at(-1) ?? 0) <= peak * goneShare;
  if (rises.length > 1) return { kind: 'pulsing', ...common, pulses: rises.length };
  if (!down) return { kind: 'steady', ...common };
  const [from = 0] = rises;
  const [to = samples.length - 1] = falls;
  return { kind: 'trips', ...common, thereS: Number(((samples[to]?.timeS ?? 0) - (samples[from]?.timeS ?? 0)).toPrecision(9)) };
}

/** Indexes at which it comes, and at which it is gone again. */
function edges(size: readonly number[], peak: number): { readonly rises: readonly number[]; readonly falls: readonly number[] } {
  const rises: number[] = [];
  const falls: number[] = [];
  let here = false;
  size.forEach((one, index) => {
    if (!here && one >= peak * hereShare) {
      here = true;
      rises.push(index);
    } else if (here && one <= peak * goneShare) {
      here = false;
      falls.push(index);
    }
  });
  return { rises, falls };
}

/** How it behaves, as a reading says it; undefined for a log that tells nothing. */
export function behaviourOf({ kind }: Capture): 'steady' | 'pulsing' | 'trips' | undefined {
  return kind === 'too-short' ? undefined : kind === 'absent' ? 'steady' : kind;
}
/** The number that goes with it: what it is, what it reached before it went, what it pulses up to, or nothing. */
export const voltsOf = ({ kind, peakVolts, endVolts }: Capture): number =>
  kind === 'steady' ? endVolts : kind === 'absent' ? 0 : peakVolts;
