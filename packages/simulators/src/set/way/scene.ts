/** The scene a set makes once it has gone its way. */
import type { Notice, Scene } from '../scene.ts';
import { shownOf } from './shown.ts';
import { voltsOf, type Way } from './volts.ts';

/** All that can be seen, heard and read. */
export function sceneOf(way: Way): Scene {
  const { around, standby, command, rail, start, panel, backlight } = way;
  const { body } = around;
  const { starts, restarts, stops, late, notice } = backlight.course;
  const shown = shownOf(around, standby, command, rail, start, panel, backlight);
  const { runsNow } = shown;
  const turns = (starts && !restarts) || stops;
  return {
    mains: standby.mains,
    awake: standby.awake,
    indicator: indicatorOf(way, runsNow),
    notice: !runsNow || notice === 'light' || notice === 'fan' ? notice : undefined,
    clicks: command.psOn && standby.bulk && standby.standbyIdle > 0.3 && (command.psOnByMain || command.forced),
    reacts: { key: command.answersKey && (runsNow || late), remote: command.answersRemote && (runsNow || late) },
    starts: starts || restarts,
    alive: runsNow,
    late,
    restarts,
    log: logOf(way),
    light: lightSeen(way, runsNow),
    sound: shown.sound,
    headphones: runsNow && !body.main.audioSilent && command.setting !== 'muted',
    picture: shown.picture,
    input: runsNow && shown.fed ? 'works' : 'dead',
    network: shown.network ? 'works' : 'dead',
    frozen: shown.frozen,
    hot: runsNow && body.runsHot,
    fan: !turns || body.fan === 'stuck' ? 'silent' : body.fan === 'worn' ? 'noisy' : 'spins',
    processor: processorFelt(way),
    logicLamp: logicLit(way),
    volts: voltsOf(way, runsNow),
    missing: { 'main-converters': start.converters, bias: biasMissing(way) },
  };
}

function indicatorOf({ around: { board, build }, standby, rail, backlight: { course } }: Way, runsNow: boolean): Scene['indicator'] {
  if (board !== undefined) return standby.bulk && standby.standbyIdle > 0.5 && rail.railFed ? 'steady' : 'off';
  if (!standby.awake) return 'off';
  const hasCode = (notice: Notice): boolean => build.family?.blink.some((code) => code.notices === notice) ?? false;
  return !runsNow && course.notice !== undefined && hasCode(course.notice) ? 'blinking' : 'steady';
}

function logOf({ around: { body }, command, rail, start }: Way): Scene['log'] {
  const { processor, converter } = body.main;
  const speaks = command.psOnByMain && start.mainFed && (command.processor.runs || processor.state === 'bond') && converter === 'good';
  if (!speaks) return 'silent';
  return rail.drySupply || rail.overloaded ? 'stops' : start.boot.reached;
}

function lightSeen({ around: { board, has }, command, backlight }: Way, runsNow: boolean): Scene['light'] {
  const { light, forcedLight, course } = backlight;
  if (runsNow || command.defaultsOn || forcedLight || board !== undefined) return light;
  const flashed = (light === 'on' && has('strips')) || light === 'flash';
  return (course.stops || course.restarts) && flashed ? 'flash' : 'off';
}

function processorFelt({ around: { body }, start: { coreUp, mainFed, converters } }: Way): Scene['processor'] {
  const { state, heat } = body.main.processor;
  if (coreUp) return state === 'dead' || heat === 'hot' ? heat : 'warm';
  return mainFed && converters !== 'all' ? heat : 'cold';
}

function logicLit({ around: { body, has, linked, out }, standby, rail }: Way): boolean {
  const fed = rail.railFed && !rail.overloaded && standby.link && body.main.panelSwitch && linked('harness.picture');
  return has('logic') && fed && body.plasma.dead !== 'logic' && !out('logic');
}

function biasMissing({ around: { body }, panel: { tconFed, railShort } }: Way): 'none' | 'one' | 'all' {
  if (!tconFed) return 'all';
  if (railShort) return body.panel.railShort.misfound ? 'all' : 'one';
  if (body.tcon.bias === 'good') return 'none';
  return body.tcon.bias === 'one-missing' ? 'one' : 'all';
}
