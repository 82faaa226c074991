/** A reading on its way to the ledger, whichever way it came. No screen in here. */
import type { BlinkAfter, BlinkResult, BlinkWay, BodyOf, LightColour, LightState, LightTrace, Seen } from '@veglia/core';

export interface Taken {
  readonly groups: readonly number[];
  readonly light?: LightState | undefined;
  readonly colour?: LightColour | undefined;
  readonly after?: BlinkAfter | undefined;
  readonly cycles: number;
  readonly how: BlinkWay;
  readonly probability?: number | undefined;
  readonly alternatives?: readonly { readonly groups: readonly number[]; readonly probability: number }[] | undefined;
  readonly corrected?: boolean | undefined;
  readonly clicks?: readonly number[] | undefined;
  readonly afterClick?: 'steady' | 'blinking' | 'dark' | undefined;
  readonly trace?: BodyOf<'blink.read'>['trace'] | undefined;
}

const statesOf: Partial<Record<BlinkResult['kind'], LightState>> = {
  steady: 'steady',
  'no-pattern': 'no-pattern',
  'single-flash': 'single-flash',
};

/** Undefined where nothing can be said yet. */
export function takenOf(result: BlinkResult, how: BlinkWay): Taken | undefined {
  const { reading, alternatives, cycles, kind } = result;
  if (reading) {
    const { groups, colour, after, probability } = reading;
    return { groups, colour, after, cycles, how, probability, alternatives: alternatives.slice(0, 6) };
  }
  const light = statesOf[kind];
  return light && how !== 'taps' ? { groups: [], light, cycles: 0, how } : undefined;
}

export function takenOfSeen(seen: Seen, twice: boolean): Taken {
  return 'groups' in seen
    ? { ...seen, cycles: twice ? 2 : 1, how: 'eye' }
    : { groups: [], light: seen.light, ...(seen.colour ? { colour: seen.colour } : {}), cycles: 0, how: 'eye' };
}

/** Corrected by hand: the probabilities were those of another reading, and are let go. */
export const correctedTo = (taken: Taken, seen: Seen, twice: boolean): Taken => ({
  ...takenOfSeen(seen, twice),
  how: taken.how,
  corrected: true,
  trace: taken.trace,
});

/** What the light did after the last relay click, by the flashes that began later and how the recording ends. */
export function afterClickOf(result: BlinkResult, clicks: readonly number[]): Taken['afterClick'] {
  const last = clicks.at(-1);
  if (last === undefined) return undefined;
  const later = result.pulses.filter(({ onS }) => onS > last).length;
  return later >= 2 ? 'blinking' : result.reading?.after === 'steady' || later === 1 ? 'steady' : 'dark';
}

/** The recording small enough to be kept with the job: levels of 0 to 99 at even steps, and the flashes found. */
export function keptTrace({ timesS, levels }: LightTrace, result: BlinkResult): NonNullable<BodyOf<'blink.read'>['trace']> {
  const begin = timesS[0] ?? 0;
  const span = (timesS.at(-1) ?? 0) - begin;
  const steps = Math.min(1200, timesS.length);
  const stepS = Number(Math.max(span / Math.max(1, steps - 1), 0.001).toFixed(4));
  const low = levels.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);
  const high = levels.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
  let at = 0;
  const kept = Array.from({ length: steps }, (_, k) => {
    while (at + 1 < timesS.length && (timesS[at + 1] ?? 0) <= begin + k * stepS) at++;
    return Math.round((((levels[at] ?? low) - low) / Math.max(high - low, 1e-12)) * 99);
  });
  const round = (value: number): number => Number((value - begin).toFixed(3));
  return { stepS, levels: kept, flashes: result.pulses.slice(0, 400).map(({ onS, offS }): [number, number] => [round(onS), round(offS)]) };
}

/** The entry; `out` is what was unplugged meanwhile. */
export function blinkBody(taken: Taken, out?: string): BodyOf<'blink.read'> {
  const { groups, cycles, alternatives, clicks, ...rest } = taken;
  const given = Object.fromEntries(Object.entries(rest).filter(([, value]) => value !== undefined && value !== false));
  return {
    kind: 'blink.read',
    v: 3,
    groups: [...groups],
    cycles,
    ...given,
    ...(alternatives && alternatives.length > 0
      ? { alternatives: alternatives.map((one) => ({ groups: [...one.groups], probability: one.probability })) }
      : {}),
    ...(clicks && clicks.length > 0 ? { clicks: [...clicks] } : {}),
    ...(out === undefined ? {} : { out }),
  };
}

/** With a board out, against the code read before: the answer of the test that compares. */
export function comparedWith(before: readonly number[], now: Taken): 'same' | 'changed' | 'gone' | undefined {
  if (now.groups.length === 0) return now.light === 'no-pattern' ? undefined : 'gone';
  return before.join('-') === now.groups.join('-') ? 'same' : 'changed';
}
