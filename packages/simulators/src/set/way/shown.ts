/** What is heard and seen of a set that runs: sound, picture, network. */
import type { Picture } from '../scene.ts';
import { pictureOf } from '../stages.ts';
import type { Backlight } from './backlight.ts';
import type { Command } from './command.ts';
import type { PanelSide } from './panel.ts';
import type { Rail } from './rail.ts';
import type { Standby } from './standby.ts';
import type { Start } from './start.ts';
import { shortOhms, type Surroundings } from './surroundings.ts';

/** What can be seen from outside. */
export interface Shown {
  /** It runs as its owner knows it. */
  readonly runsNow: boolean;
  readonly sound: boolean;
  readonly frozen: boolean;
  readonly picture: Picture;
  /** Something comes in at the chosen input. */
  readonly fed: boolean;
  readonly network: boolean;
}

/** What can be seen from outside. */
export function shownOf(
  around: Surroundings,
  { hungNow }: Standby,
  { setting }: Command,
  { railGood }: Rail,
  { radioShort }: Start,
  panel: PanelSide,
  { light, course }: Backlight,
): Shown {
  const { body, bench, board, has, out, linked } = around;
  const runsNow = course.starts && !course.restarts && !course.stops && !course.late;
  const amplifier = body.main.audioShortOhms > shortOhms && !body.main.audioSilent;
  const speakersGood =
    !out('speakers') && !body.speakers.open && !(body.speakers.shows === 'silent' && body.speakers.shortOhms < shortOhms);
  const frozen =
    runsNow &&
    board === undefined &&
    (body.main.flash.damaged === 'apps' ||
      (body.main.emmc.worn && body.main.emmc.shows === 'apps') ||
      (hungNow && body.main.hung === 'apps') ||
      (body.main.software && !bench.updated && !bench.reset));
  const otherInput = bench.supply.has('other-input');
  const sourceThere = body.sourceGood || bench.supply.has('known-source') || otherInput;
  const inputThere = (body.main.inputGood || otherInput) && (setting !== 'wrong-input' || otherInput);
  const drawn: Picture =
    !(runsNow || board !== undefined) || !railGood
      ? 'none'
      : pictureOf(around.build, body, bench, {
          ...panel,
          fromMain: (board !== undefined || body.main.pictureOut) && (has('harness.picture') ? linked('harness.picture') : true),
          plasmaOn: body.sustainRail > 0.5 && linked('harness.sustain') && linked('harness.logic'),
          board,
        });
  // A bad ground at the boards shows in the picture first.
  const grounded: Picture = drawn === 'good' && !linked('harness.ground') ? 'lines' : drawn;
  const ownPicture = ['menu', 'pattern', 'service'].includes(bench.pressed ?? '');
  const atInput: Picture = ownPicture || board !== undefined ? grounded : !sourceThere || !inputThere ? 'none' : grounded;
  const dark = has('strips') && light !== 'on' && light !== 'dim';
  const inTheDark: Picture = bench.pressed === 'menu' && drawn !== 'none' ? 'faint' : 'none';
  const radioGood = !body.radio.dead && !radioShort && !out('radio');
  return {
    runsNow,
    sound: runsNow && board === undefined && amplifier && speakersGood && setting !== 'muted',
    frozen,
    picture: frozen && bench.pressed === 'menu' ? 'frozen' : dark ? inTheDark : atInput,
    fed: sourceThere && inputThere,
    network:
      runsNow && (bench.supply.has('known-network') || ((body.networkGood || bench.supply.has('other-network')) && radioGood)) && !frozen,
  };
}
