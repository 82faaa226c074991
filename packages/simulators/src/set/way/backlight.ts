/** The light: who commands it, what drives it, whether the strips take it. */
import type { Light } from '../scene.ts';
import { lightOf } from '../stages.ts';
import type { Command } from './command.ts';
import type { PanelSide } from './panel.ts';
import type { Rail } from './rail.ts';
import type { Standby } from './standby.ts';
import type { Course, Start } from './start.ts';
import type { Surroundings } from './surroundings.ts';

/** The light as it stands at the end of a start. */
export interface Backlight {
  readonly commanded: boolean;
  readonly forcedLight: boolean;
  readonly driverFed: boolean;
  readonly driverAsked: boolean;
  readonly lit: ReturnType<typeof lightOf>;
  readonly light: Light;
  readonly course: Course;
}

/** The light that follows from supply and command. */
export function backlightOf(
  around: Surroundings,
  { link }: Standby,
  { forced, defaultsOn }: Command,
  now: Rail,
  { asksLight }: Start,
  { course: before, tconFed }: PanelSide,
): Backlight {
  const { body, bench, board, has, out, linked, trait } = around;
  const course = { ...before };
  const runs = course.starts && !course.stops && !course.restarts;
  const commanded =
    (asksLight || runs || course.stops) &&
    (board !== undefined || (body.main.lightCommand && link && (!trait('tcon.carries-light-command') || tconFed)));
  const forcedLight = bench.bridged.some((pair) => pair.includes('bl-on'));
  const railThere = now.railGood || now.pulses || now.rail.peak > 0.5;
  const driverFed = now.railFed && body.lightRail && railThere && linked('harness.driver') && !out('driver');
  const driverAsked = commanded || forcedLight || defaultsOn || (forced && !link && trait('light.defaults-on'));
  const lit = lightOf(body, bench, driverFed && driverAsked && body.driver.gives, linked('harness.light'));
  if (body.strips.stopsSet && body.strips.open !== 'none' && runs && driverAsked && lit.light !== 'on') course.stops = true;
  if (runs && lit.faulty && has('strips')) course.notice ??= 'light';
  return { commanded, forcedLight, driverFed, driverAsked, lit, light: !has('strips') || course.late ? 'off' : lit.light, course };
}
