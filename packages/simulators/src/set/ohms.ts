/** Ohms to chassis (or across a part), unplugged. Healthy values are of the order a bench reads (values from memory). */
import type { Build } from './scene.ts';
import type { BenchState } from './bench.ts';
import type { Body } from './body.ts';
import { plasmaShortOff } from './stages.ts';

/** What stands for no way through, Ω. */
export const openOhms = 1e9;

const healthy: Readonly<Record<string, number>> = {
  'line-fuse': 0.2,
  'bridge-out': 4e5,
  'main-input': 700,
  'main-converters': 90,
  bias: 5000,
  'led-plug': 1000,
  'strip-joints': 1000,
  'rail-caps': 0.05,
  speakers: 7,
  sustain: 15_000,
  'address-rail': 6000,
};

/** What a good set reads from a point to chassis, Ω. */
export const healthyOhms = (point: string): number => healthy[point] ?? 1000;

const parallel = (...ohms: readonly number[]): number => 1 / ohms.reduce((sum, one) => sum + 1 / one, 0);

/** What this set reads from a point to chassis, Ω. */
export function ohmsAt(point: string, { layout }: Build, body: Body, bench: BenchState): number {
  const good = healthyOhms(point);
  const has = (node: string): boolean => layout.assemblies.includes(node);
  const out = (node: string): boolean => bench.out.has(node);
  const tconOn = has('harness.picture') ? !out('harness.picture') : true;
  switch (point) {
    case 'line-fuse':
      return body.fuseOpen ? openOhms : good;
    case 'cord-ends':
      return body.cord.ohms;
    case 'bridge-out':
      return body.primaryShort ? 0.4 : good;
    case 'main-input':
      // Main's panel switch stands between this rail and the T-con: most sets read nothing of a short behind it.
      return parallel(
        good,
        body.main.audioShortOhms,
        body.tcon.shortShows === 'no-start' && tconOn ? body.tcon.supplyShortOhms : Number.POSITIVE_INFINITY,
      );
    case 'main-converters':
      return parallel(
        good,
        body.main.converter === 'one-shorted' ? 1 : Number.POSITIVE_INFINITY,
        body.radio.shorted && !out('radio') ? 1.5 : Number.POSITIVE_INFINITY,
      );
    case 'bias': {
      const { at, side, ohms } = body.panel.railShort;
      const ribbon = has(`harness.panel-${side}`) ? !out(`harness.panel-${side}`) : tconOn || !has('harness.picture');
      const lifted = at === 'capacitor' && bench.lifted.has('bias-capacitor') && !body.panel.railShort.misfound;
      return at !== 'none' && ribbon && !lifted ? parallel(good, ohms) : good;
    }
    case 'led-plug':
    case 'strip-joints': {
      const light = body.contacts['harness.light'];
      if (point === 'led-plug' && (light?.state === 'open' || out('harness.light'))) return openOhms;
      if (body.strips.open !== 'none') return openOhms;
      // A tester at full current finds what one at a tenth of it passes.
      if (body.strips.failsAtFull && point === 'strip-joints') return openOhms;
      return good * (1 - body.strips.shortedShare);
    }
    case 'speakers':
      return body.speakers.open ? openOhms : parallel(good, body.speakers.shortOhms);
    case 'rail-caps':
      return body.rail.esrOhms;
    case 'sustain':
    case 'address-rail': {
      const { shorted } = body.plasma;
      const mine = point === 'address-rail' ? shorted === 'address' : shorted !== 'none' && shorted !== 'address';
      return mine && !plasmaShortOff(body, out) ? 0.5 : good;
    }
    default:
      return good;
  }
}
