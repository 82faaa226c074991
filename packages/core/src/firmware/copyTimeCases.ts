/**
 * How long a copy takes, as a bench sees it: written before the rule. A full 3.8 GB memory takes 60 to 90 minutes each way at 0.7 to 1.1 MB a second, and
 * the first percents mislead (common practice, no source). The traces are made by hand from that: a copy starts fast while a cache fills and then settles.
 */

/** Seconds since the start, and bytes done. */
export type CopySample = readonly [seconds: number, done: number];
/** A copy on its way, and what may be said of the rest. */
export interface CopyCase {
  readonly name: string;
  readonly bytes: number;
  readonly samples: readonly CopySample[];
  /** Minutes that are really left; the forecast has to hold them. */
  readonly left: number;
  /** The most that its longest may be, as a multiple of its shortest. */
  readonly spread: number;
  /** True: it goes by what such a chip usually takes, and says so. */
  readonly usual: boolean;
}

const mega = 1e6;
const full = 3.8e9;
/** `fast` bytes at 12 MB/s first, then `rate` MB/s; a look every `every` seconds up to `until`. */
function trace({ fast, rate, every = 10, until }: { fast: number; rate: number; every?: number; until: number }): CopySample[] {
  const quick = fast / (12 * mega);
  return Array.from({ length: Math.floor(until / every) + 1 }, (_, index) => {
    const at = index * every;
    return [at, at <= quick ? at * 12 * mega : fast + (at - quick) * rate * mega] as const;
  });
}
const after = (samples: readonly CopySample[], bytes: number, rate: number): number =>
  (bytes - (samples.at(-1)?.[1] ?? 0)) / (rate * mega) / 60;

const start = trace({ fast: 0.02 * full, rate: 0.85, until: 6 });
const settled = trace({ fast: 0.02 * full, rate: 0.85, until: 600 });
const halfWay = trace({ fast: 0.02 * full, rate: 0.85, until: 2300 });
const steadySmall = trace({ fast: 0, rate: 0.2, every: 1, until: 12 });
const slowed: CopySample[] = [
  ...trace({ fast: 0, rate: 1, until: 1200 }),
  ...[10, 20, 30, 60, 120, 300, 600].map((more) => [1200 + more, 1.2e9 + more * 0.4 * mega] as const),
];

/** Copies as they go. */
export const copyCases: readonly CopyCase[] = [
  {
    name: 'before anything is seen, what 3.8 GB usually takes: an hour to an hour and a half',
    bytes: full,
    samples: [],
    left: 75,
    spread: 1.7,
    usual: true,
  },
  {
    name: 'after six seconds at 12 MB a second nobody believes five minutes: still the usual time',
    bytes: full,
    samples: start,
    left: after(start, full, 0.85),
    spread: 1.7,
    usual: true,
  },
  {
    name: 'after ten minutes it goes by itself, and no longer by its quick start',
    bytes: full,
    samples: settled,
    left: after(settled, full, 0.85),
    spread: 1.5,
    usual: false,
  },
  {
    name: 'half way, narrower',
    bytes: full,
    samples: halfWay,
    left: after(halfWay, full, 0.85),
    spread: 1.35,
    usual: false,
  },
  {
    name: 'a small chip at a steady 0.2 MB a second',
    bytes: 4 * mega,
    samples: steadySmall,
    left: after(steadySmall, 4 * mega, 0.2),
    spread: 1.35,
    usual: false,
  },
  {
    name: 'slower than before: the forecast follows what it does now',
    bytes: full,
    samples: slowed,
    left: after(slowed, full, 0.4),
    spread: 3,
    usual: false,
  },
  {
    name: 'done',
    bytes: 4 * mega,
    samples: trace({ fast: 0, rate: 0.2, every: 1, until: 20 }),
    left: 0,
    spread: Infinity,
    usual: false,
  },
];
