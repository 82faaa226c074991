/** The panel side: its supply, the bias rails, and what of it stops the set. */
import type { Command } from './command.ts';
import type { Rail } from './rail.ts';
import type { Course, Start } from './start.ts';
import { shortOhms, type Surroundings } from './surroundings.ts';

/** What reaches the panel. */
export interface PanelSide {
  readonly switchedOn: boolean;
  readonly panelFed: boolean;
  readonly tconFed: boolean;
  readonly sideIn: (side: 'left' | 'right') => boolean;
  readonly railShort: boolean;
  readonly clockTaped: boolean;
  readonly clockShort: boolean;
  readonly biasUp: boolean;
  readonly course: Course;
}

/** The panel’s side: supply, data, bias. */
export function panelOf(around: Surroundings, { forced }: Command, now: Rail, { course: before }: Start): PanelSide {
  const { body, bench, board, has, out, linked, trait } = around;
  const { railFed, railGood, tconIn, tconPowered } = now;
  const course = { ...before };
  const switchedOn = (course.starts || course.restarts || course.stops) && body.main.panelSwitch;
  const jigged = board !== undefined && (has('harness.tcon-power') ? railFed : railGood);
  const panelFed = has('harness.tcon-power')
    ? (switchedOn || jigged || (forced && railFed)) && body.panelRail > 0.5
    : switchedOn || (board === 'universal' && railGood);
  const tconFed = panelFed && tconPowered && !body.tcon.fuseOpen && body.tcon.supplyShortOhms > shortOhms;
  const sidePlugged = (side: 'left' | 'right'): boolean => (has(`harness.panel-${side}`) ? !out(`harness.panel-${side}`) : tconIn);
  const { railShort: short } = body.panel;
  const railShort = short.at !== 'none' && sidePlugged(short.side) && !(bench.lifted.has('bias-capacitor') && short.at === 'capacitor');
  const clockTaped = bench.taped.has('clock-lines');
  const clockShort = body.panel.clockShort !== 'none' && !clockTaped && (sidePlugged('left') || sidePlugged('right')) && tconIn;
  const running = course.starts && !course.stops && !course.restarts;
  if (running && tconFed && (clockShort || (railShort && short.shows !== 'blank'))) {
    course.restarts = (clockShort ? body.panel.clockShort : short.shows) === 'loop';
    course.stops = !course.restarts;
    course.notice = 'panel';
  }
  if (running && has('fans') && body.fan === 'stuck' && trait('code.names-missing-board')) course.notice = 'fan';
  return {
    switchedOn,
    panelFed,
    tconFed,
    sideIn: (side) =>
      has(`harness.panel-${side}`) ? linked(`harness.panel-${side}`) : has('harness.picture') ? linked('harness.picture') : true,
    railShort,
    clockTaped,
    clockShort,
    biasUp: tconFed && body.tcon.bias === 'good' && !railShort,
    course,
  };
}
