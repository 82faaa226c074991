/** What a meter finds at each point, as shares of nominal. */
import type { Scene, Volts } from '../scene.ts';
import { plasmaVolts } from '../stages.ts';
import type { Backlight } from './backlight.ts';
import type { Command } from './command.ts';
import type { PanelSide } from './panel.ts';
import type { Rail } from './rail.ts';
import type { Standby } from './standby.ts';
import type { Start } from './start.ts';
import { shortOhms, type Surroundings } from './surroundings.ts';

/** All stages a set went through. */
export interface Way {
  readonly around: Surroundings;
  readonly standby: Standby;
  readonly command: Command;
  readonly rail: Rail;
  readonly start: Start;
  readonly panel: PanelSide;
  readonly backlight: Backlight;
}

const on = (share: number, steady = true): Volts => ({ idle: 0, value: steady ? share : 0, peak: share, steady: steady && share > 0 });
/** There after the key, whatever the key found before. */
const asked = (there: boolean): Volts => ({ idle: 0, value: there ? 1 : 0, peak: there ? 1 : 0, steady: true });

/** Volts at each point of the layout. */
export function voltsOf(way: Way, runsNow: boolean): Scene['volts'] {
  return { ...supplyVolts(way), ...panelVolts(way, runsNow), ...lightVolts(way), ...plasmaRails(way) };
}

function supplyVolts({ around: { body }, standby, command, rail: { rail } }: Way): Scene['volts'] {
  const { standbyIdle, standbyStart, wokenMain, bulk } = standby;
  const keyMoves = wokenMain && command.keysIn && body.keys.contact && body.keys.stuck === 'no';
  return {
    standby: { idle: standbyIdle, value: standbyStart, peak: standbyIdle, steady: standbyStart > 0.9 * standbyIdle },
    'ps-on': asked(command.psOnByMain || command.forced),
    'main-rail': rail,
    'key-wire': { idle: wokenMain ? 1 : 0, value: keyMoves ? 0.2 : wokenMain ? 1 : 0, peak: wokenMain ? 1 : 0, steady: true },
    bulk: on(bulk ? 1 : 0),
  };
}

function panelVolts({ around, standby, command, rail, panel }: Way, runsNow: boolean): Scene['volts'] {
  const { body, board, has } = around;
  const persists = runsNow || command.forced || board !== undefined;
  const pulledDown = body.tcon.supplyShortOhms < shortOhms && !body.tcon.fuseOpen;
  const tconPeak = panel.panelFed && rail.tconPowered ? (pulledDown ? 0.3 : 1) : 0;
  const switchPeak = panel.switchedOn ? (rail.tconShort < shortOhms ? 0.3 : 1) : 0;
  const logicFed = rail.railGood && standby.link && body.main.panelSwitch ? 1 : 0;
  return {
    'tcon-input': on(tconPeak, persists),
    'tcon-fuse-out': on(body.tcon.fuseOpen ? 0 : tconPeak, persists),
    'panel-switch': on(has('logic') ? logicFed : switchPeak, persists),
    'panel-pairs': on(runsNow && panel.tconFed && body.tcon.clock ? (body.tcon.half === 'none' ? 1 : 0.5) : 0),
    'picture-pairs': on(runsNow && body.main.pictureOut ? 1 : 0),
    'panel-supply': on((command.psOnByMain || command.forced) && rail.railFed && !rail.overloaded ? body.panelRail : 0),
  };
}

function lightVolts({ around: { body }, backlight }: Way): Scene['volts'] {
  const { commanded, forcedLight, driverFed, driverAsked, lit } = backlight;
  return {
    'bl-on': on(commanded || forcedLight ? 1 : 0),
    dim: on(commanded || forcedLight ? 1 : 0),
    'bl-err': asked(lit.faulty && driverFed && driverAsked && body.driver.gives),
    'led-plug': lit.volts,
    'driver-supply': on(driverFed ? 1 : 0),
  };
}

function plasmaRails({ around: { body }, command, rail }: Way): Scene['volts'] {
  const { railFed, plasmaShort, overloaded } = rail;
  const { shorted } = body.plasma;
  const fed = railFed && command.psOn;
  return {
    sustain: plasmaVolts(fed, body.sustainRail, shorted !== 'none' && shorted !== 'address' && plasmaShort, overloaded && !plasmaShort),
    'address-rail': plasmaVolts(fed, 1, shorted === 'address' && plasmaShort, overloaded && !(plasmaShort && shorted === 'address')),
  };
}
