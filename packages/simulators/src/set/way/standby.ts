/** Mains, fuse, standby: what main wakes from. */
import { hangs } from '../stages.ts';
import { loads, type Surroundings } from './surroundings.ts';

/** The standby supply. */
export interface Standby {
  readonly mains: boolean;
  readonly bulk: boolean;
  /** Power and main are joined. */
  readonly link: boolean;
  /** Shares of the nominal volts. */
  readonly standbyIdle: number;
  readonly standbyStart: number;
  readonly hungNow: boolean;
  readonly wokenMain: boolean;
  readonly awake: boolean;
}

/** The standby supply that follows from mains and load. */
export function standbyOf({ body, bench, ask, board, mainNode, linked, out }: Surroundings): Standby {
  const cord = body.cord.ohms < 1000 && !(bench.tapped.has('cord') && body.cord.flaky);
  const mains = bench.plugged && (body.outletLive || bench.supply.has('known-outlet')) && cord;
  const bulk = mains && !body.fuseOpen;
  const link = linked('harness.power-main') && !out(mainNode);
  const regulatorShort = body.main.regulator === 'shorted' && link && !board ? 3 : 0;
  const standbyAt = (own: number): number => {
    if (!bulk || body.standby.gain === 0) return 0;
    const amperes = (link ? own : 0) + regulatorShort + (bench.loads.get('standby') ?? 0);
    return body.standby.gain * Math.min(1, body.standby.limitAmperes / Math.max(amperes, 0.001));
  };
  const standbyIdle = standbyAt(loads.standbyIdle);
  const hungNow = hangs(body, bench);
  const wokenMain = link && standbyIdle >= 0.9 && body.main.regulator === 'good' && !board;
  return {
    mains,
    bulk,
    link,
    standbyIdle,
    standbyStart: ask === 'none' && bench.bridged.length === 0 ? standbyIdle : standbyAt(loads.standbyStart),
    hungNow,
    wokenMain,
    awake: wokenMain && !(hungNow && body.main.hung === 'dark'),
  };
}
