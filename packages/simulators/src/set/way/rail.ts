/** The main rail, and what hangs on it. */
import { warmthOf } from '../bench.ts';
import type { Volts } from '../scene.ts';
import { flat, plasmaShortOff } from '../stages.ts';
import type { Command } from './command.ts';
import type { Standby } from './standby.ts';
import { loads, shortOhms, type Surroundings } from './surroundings.ts';

/** The main rails of a start. */
export interface Rail {
  readonly railFed: boolean;
  readonly tconIn: boolean;
  readonly tconPowered: boolean;
  /** Ohms of what pulls the rail down; Infinity where nothing does. */
  readonly audioShort: number;
  readonly speakerShort: number;
  readonly tconShort: number;
  readonly plasmaShort: boolean;
  readonly lightShort: boolean;
  readonly shortedNow: boolean;
  readonly overloaded: boolean;
  readonly drySupply: boolean;
  readonly pulses: boolean;
  readonly rail: Volts;
  readonly railGood: boolean;
}

/** The main rails that follow from the standby and the command. */
export function railOf(around: Surroundings, { bulk, link, standbyIdle }: Standby, { psOn }: Command): Rail {
  const { build, body, bench, board, powerNode, has, out, linked } = around;
  const railFed = bulk && psOn && body.rail.starts && standbyIdle > 0.15;
  const feedsTcon = (!has('harness.picture') || linked('harness.picture')) && (link || board !== undefined);
  const tconIn = has('tcon') ? feedsTcon && !out('tcon') : build.layout.merges.tcon !== undefined && feedsTcon;
  const tconPowered = has('harness.tcon-power') ? linked('harness.tcon-power') && !out('tcon') : tconIn;
  const audioShort = link && !board ? body.main.audioShortOhms : Infinity;
  const speakerShort = link && !board && !out('speakers') && body.speakers.shows === 'stops' ? body.speakers.shortOhms : Infinity;
  const tconShort =
    tconPowered && (has('harness.tcon-power') || body.main.panelSwitch || board !== undefined) && !body.tcon.fuseOpen
      ? body.tcon.supplyShortOhms
      : Infinity;
  const plasmaShort = body.plasma.shorted !== 'none' && !plasmaShortOff(body, out);
  const lightShort = body.strips.shortedShare > 0 && body.strips.stopsSet && linked('harness.light');
  const lightLoad = has('strips') && linked('harness.driver') && linked('harness.light') ? loads.driver : 0;
  const selfLitLoad = !has('strips') && (tconPowered || has('logic')) ? loads.selfLit : 0;
  const mainLoad = link ? loads.main + (out('radio') ? 0 : loads.radio) : 0;
  const amperes = mainLoad + (tconPowered ? loads.tcon : 0) + lightLoad + selfLitLoad;
  const shortedNow = [audioShort, speakerShort, tconShort].some((ohms) => ohms < shortOhms) || plasmaShort;
  const overloaded = shortedNow || lightShort || amperes > body.rail.limitAmperes;
  const powerWarm = warmthOf(bench, powerNode, 'power');
  const drySupply = body.rail.esrOhms > 1 && powerWarm < 34 && amperes > loads.main && bench.presses < 3 && bench.patience < 3;
  const rail: Volts = !railFed
    ? flat(0)
    : overloaded
      ? { idle: 0, value: body.overload === 'pulses' ? 0.4 : 0.02, peak: shortedNow ? 0.55 : 0.95, steady: false }
      : drySupply
        ? { idle: 0, value: 0.82, peak: 0.98, steady: false }
        : { idle: 0, value: 1, peak: 1, steady: true };
  return {
    railFed,
    tconIn,
    tconPowered,
    audioShort,
    speakerShort,
    tconShort,
    plasmaShort,
    lightShort,
    shortedNow,
    overloaded,
    drySupply,
    pulses: overloaded ? body.overload === 'pulses' : drySupply,
    rail,
    railGood: rail.steady && rail.value > 0.85,
  };
}
