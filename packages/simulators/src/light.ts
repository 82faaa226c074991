/** A simulated set's indicator as a camera would see it: for trying the reader without a set. */
import { randomFrom } from './set/index.ts';

/** A blink code to be played. */
export interface LightCode {
  readonly groups: readonly number[];
  readonly colour?: string | undefined;
  readonly after?: string | undefined;
}

/** About half a minute at 30 frames a second; seconds and a linear level. `colour` where the light is lit. */
export function filmedLight(code: LightCode, seed: number): { timesS: number[]; levels: number[]; lit: boolean[] } {
  const random = randomFrom(seed);
  const onS = 0.22 + 0.2 * random();
  const offS = onS * (0.8 + 0.6 * random());
  const pauseS = Math.max(1.6, 4 * offS);
  const flashes: [number, number][] = [];
  const cycles = code.after === 'dark' || code.after === 'steady' ? 1 : 4;
  let t = 1 + random();
  for (let cycle = 0; cycle < cycles; cycle++) {
    code.groups.forEach((count, group) => {
      for (let k = 0; k < count; k++) {
        flashes.push([t, t + onS]);
        t += onS + (k < count - 1 ? offS : group < code.groups.length - 1 ? 2.5 * offS : pauseS);
      }
    });
  }
  const untilS = t + (cycles === 1 ? 5 : 1);
  if (code.after === 'steady') flashes.push([t, untilS + 1]);
  const timesS = Array.from({ length: Math.floor(untilS * 30) }, (_, i) => Number((i / 30 + 0.004 * random()).toFixed(4)));
  const lit = timesS.map((s) => flashes.some(([from, to]) => s >= from && s < to));
  const levels = timesS.map((s, i) =>
    Number(
      (0.2 + 0.03 * Math.sin(s / 6) + 0.01 * Math.sin(2 * Math.PI * 10 * s) + (lit[i] ? 0.25 : 0) + 0.02 * (random() - 0.5)).toFixed(5),
    ),
  );
  return { timesS, levels, lit };
}
