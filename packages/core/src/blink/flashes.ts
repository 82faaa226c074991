/** Flashes out of a course of lit and dark, and how sure it is that there was none. */
import { clamp } from './chain.ts';
import type { LitCourse } from './light.ts';
import type { Pulse } from './trace.ts';
import type { LightColour } from './words.ts';

// Taken once: looked up millions of times, and slow to find where a test runs in a context of its own.
const { abs } = Math;

/** Flashes: stretches more likely lit than dark, their edges where the chance crosses one half between two samples. */
export function pulsesOf(course: LitCourse): Pulse[] {
  const { timesS: times, lit, evidence, colours } = course;
  const pulses: Pulse[] = [];
  const n = times.length;
  let begin = -1;
  const crossing = (i: number): number => {
    const [a, b] = [lit[i - 1] ?? 0, lit[i] ?? 0];
    const share = abs(b - a) > 1e-9 ? (0.5 - a) / (b - a) : 0.5;
    return (times[i - 1] ?? 0) + clamp(share, 0, 1) * ((times[i] ?? 0) - (times[i - 1] ?? 0));
  };
  for (let i = 0; i <= n; i++) {
    const on = i < n && (lit[i] ?? 0) > 0.5;
    if (on && begin < 0) begin = i;
    if (on || begin < 0) continue;
    let sum = 0;
    const votes = new Map<LightColour, number>();
    for (let k = begin; k < i; k++) {
      sum += evidence[k] ?? 0;
      const colour = colours?.[k];
      if (colour !== undefined) votes.set(colour, (votes.get(colour) ?? 0) + 1);
    }
    const [winner] = [...votes].sort((x, y) => y[1] - x[1] || (x[0] < y[0] ? -1 : 1));
    pulses.push({
      onS: begin === 0 ? (times[0] ?? 0) : crossing(begin),
      offS: i === n ? (times[n - 1] ?? 0) : crossing(i),
      logOdds: sum,
      ...(winner ? { colour: winner[0] } : {}),
    });
    begin = -1;
  }
  return pulses;
}

/** Log odds that the light stayed dark from one time to another, by levels alone; 0 where no sample tells. Sums are made once. */
export function darkness({ timesS: times, evidence }: LitCourse): (fromS: number, toS: number) => number {
  const sums = new Float64Array(times.length + 1);
  for (let i = 0; i < times.length; i++) sums[i + 1] = (sums[i] ?? 0) - (evidence[i] ?? 0);
  /** Samples before this time. */
  const before = (seconds: number): number => {
    let low = 0;
    let high = times.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((times[middle] ?? 0) < seconds) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  return (fromS, toS) => {
    const from = before(fromS);
    const to = before(toS);
    return to > from ? (sums[to] ?? 0) - (sums[from] ?? 0) : 0;
  };
}
