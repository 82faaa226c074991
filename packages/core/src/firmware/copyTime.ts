/** How long a copy of a memory takes: before it starts, and while it runs. Nothing of it is hands-on time. */
import type { FlashDid } from '../ledger/index.ts';

/** Bytes a second that such a memory is copied at, slowest and fastest. */
interface Rates {
  readonly least: number;
  readonly most: number;
}
/**
 * An eMMC over four wires: 0.7 to 1.1 MB/s (common practice, no source). Serial chips under a clip: from a slow programmer to a good one (value of ours; an
 * SPI flash at 4 MHz and one line gives 0.5 MB/s at most).
 */
const usualRates: Readonly<Record<Extract<FlashDid, { step: 'opened' }>['memory'], Rates>> = {
  emmc: { least: 0.7e6, most: 1.1e6 },
  'spi-nor': { least: 0.05e6, most: 0.5e6 },
  eeprom: { least: 0.005e6, most: 0.04e6 },
};

/** Minutes from shortest to longest; `usual`: by what such a chip takes, for this copy has not shown it yet. */
export interface CopyForecast {
  readonly least: number;
  readonly most: number;
  readonly usual: boolean;
}

const minutesFor = (bytes: number, { least, most }: Rates, usual: boolean): CopyForecast => ({
  least: bytes / most / 60,
  most: bytes / least / 60,
  usual,
});

/** Before it starts. */
export const usualCopyTime = (memory: keyof typeof usualRates, bytes: number): CopyForecast => minutesFor(bytes, usualRates[memory], true);

/** Of the time since it settled, this share is looked at, in so many parts: their rates tell slowest from fastest (values of ours). */
const newest = 0.4;
const parts = 4;
/** Before it settled: so much of the whole, or so many seconds. */
const settlingShare = 0.05;
const settlingSeconds = 5;

/**
 * What is left of a copy, by what it did since it settled. `samples`: seconds since its start and bytes done, oldest first. The first percents of a long copy
 * go into a cache and mislead: until a twentieth is done the usual time stands.
 */
export function copyForecast(
  memory: keyof typeof usualRates,
  bytes: number,
  samples: readonly (readonly [number, number])[],
): CopyForecast {
  const [at, done] = samples.at(-1) ?? [0, 0];
  const left = Math.max(0, bytes - done);
  if (left === 0) return { least: 0, most: 0, usual: false };
  const from = samples.find(([seconds, then]) => seconds >= settlingSeconds && then >= settlingShare * bytes);
  if (!from || at - from[0] < settlingSeconds) return minutesFor(left, usualRates[memory], true);
  // The newest of what was seen since: where it slowed down, it follows.
  const span = newest * (at - from[0]);
  const rates: number[] = [];
  for (let part = 0; part < parts; part += 1) {
    const rate = between(samples, at - (span * (part + 1)) / parts, at - (span * part) / parts);
    if (rate !== undefined) rates.push(rate);
  }
  if (rates.length === 0) return minutesFor(left, usualRates[memory], true);
  // A tenth each way for what no past tells (value of ours).
  return minutesFor(left, { least: Math.min(...rates) * 0.9, most: Math.max(...rates) * 1.1 }, false);
}

/** Bytes done at a moment, between two looks as if evenly. */
function doneAt(samples: readonly (readonly [number, number])[], moment: number): number {
  const next = samples.findIndex(([at]) => at >= moment);
  const [before, after] = [samples[next - 1], samples[next] ?? samples.at(-1)];
  if (!after) return 0;
  if (!before || after[0] === before[0]) return after[1];
  return before[1] + ((moment - before[0]) / (after[0] - before[0])) * (after[1] - before[1]);
}

/** Bytes a second between two moments; undefined where nothing moved. */
function between(samples: readonly (readonly [number, number])[], since: number, until: number): number | undefined {
  const moved = doneAt(samples, until) - doneAt(samples, since);
  return moved > 0 && until > since ? moved / (until - since) : undefined;
}
