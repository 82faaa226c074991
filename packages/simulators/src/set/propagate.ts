/**
 * From mains to picture, in the order in which a set comes alive (`way/`). Each stage asks what reaches it, what hangs on it, and what
 * it gives on; nothing is looked up by fault.
 */
import type { BenchState } from './bench.ts';
import type { Body } from './body.ts';
import type { Build, Scene } from './scene.ts';
import { backlightOf } from './way/backlight.ts';
import { commandOf } from './way/command.ts';
import { panelOf } from './way/panel.ts';
import { railOf } from './way/rail.ts';
import { sceneOf } from './way/scene.ts';
import { standbyOf } from './way/standby.ts';
import { startOf } from './way/start.ts';
import { surroundingsOf, type Ask } from './way/surroundings.ts';
import type { Way } from './way/volts.ts';

export type { Ask } from './way/surroundings.ts';

/** Every stage of the way, for a look at one of them. */
export function wayOf(build: Build, body: Body, bench: BenchState, ask: Ask): Way {
  const around = surroundingsOf(build, body, bench, ask);
  const standby = standbyOf(around);
  const command = commandOf(around, standby);
  const rail = railOf(around, standby, command);
  const start = startOf(around, standby, command, rail);
  const panel = panelOf(around, command, rail, start);
  const backlight = backlightOf(around, standby, command, rail, start, panel);
  return { around, standby, command, rail, start, panel, backlight };
}

/** The scene that follows from body and bench. */
export const propagate = (build: Build, body: Body, bench: BenchState, ask: Ask): Scene => sceneOf(wayOf(build, body, bench, ask));
