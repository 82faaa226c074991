/** Main's converters, start-up and content, and what stops the set once it runs. */
import type { Notice } from '../scene.ts';
import { bootOf } from '../stages.ts';
import type { Command } from './command.ts';
import type { Rail } from './rail.ts';
import type { Standby } from './standby.ts';
import { shortOhms, type Surroundings } from './surroundings.ts';

/** How far the set has come; later stages may still stop it. */
export interface Course {
  starts: boolean;
  restarts: boolean;
  stops: boolean;
  late: boolean;
  notice: Notice | undefined;
}

/** How a start went. */
export interface Start {
  readonly radioShort: boolean;
  readonly mainFed: boolean;
  readonly converters: 'none' | 'one' | 'all';
  readonly coreUp: boolean;
  readonly boot: ReturnType<typeof bootOf>;
  /** Main asked for the light before anything stopped it. */
  readonly asksLight: boolean;
  readonly course: Course;
}

/** How a start goes with these rails. */
export function startOf(around: Surroundings, standby: Standby, command: Command, now: Rail): Start {
  const { body, bench, board, out, linked, trait } = around;
  const { processor, memory, psOn, psOnByMain } = command;
  const { rail, railFed, railGood, pulses } = now;
  const radioShort = body.radio.shorted && !out('radio') && !board;
  const railLink = standby.link && linked('harness.power-main', 'rail');
  const mainFed = railLink && railFed && (railGood || pulses);
  const oneMissing = body.main.converter !== 'good' || radioShort;
  const converters: Start['converters'] = !mainFed ? 'all' : oneMissing ? 'one' : rail.value < 0.6 ? 'all' : 'none';
  const coreUp =
    mainFed && railGood && (body.main.converter === 'good' || board !== undefined) && (!radioShort || body.radio.shows === 'loop');
  const boot = board
    ? { reached: railGood ? ('runs' as const) : ('silent' as const), late: false, loops: false }
    : bootOf(body, {
        coreUp,
        processorRuns: processor.runs,
        bondBad: body.main.processor.state === 'bond' && !processor.runs,
        memory,
        radioShort,
        waitsForPanel: trait('main.waits-for-panel') && !now.tconIn,
        patience: bench.patience,
        presses: bench.presses,
      });
  const course: Course = {
    starts: boot.reached === 'runs' && psOn && (psOnByMain || board !== undefined),
    restarts: boot.loops && psOnByMain,
    stops: false,
    late: boot.late,
    notice: undefined,
  };
  if (now.drySupply && railFed && !now.overloaded && psOnByMain) {
    course.starts = false;
    course.late = true;
  }
  const asksLight = course.starts || course.restarts;
  protect(course, around, standby, command, now, mainFed && boot.reached !== 'runs');
  return { radioShort, mainFed, converters, coreUp, boot, asksLight, course };
}

/** Protections that strike once it runs. */
function protect(course: Course, around: Surroundings, { link }: Standby, command: Command, now: Rail, silent: boolean): void {
  const { body } = around;
  const { psOnByMain, memory } = command;
  const { overloaded, shortedNow, lightShort, plasmaShort, tconShort } = now;
  if (psOnByMain && overloaded) {
    course.starts = shortedNow ? body.tcon.supplyShortOhms === Infinity || body.tcon.shortShows !== 'no-start' : true;
    if (plasmaShort && body.plasma.stops === 'no-start') course.starts = false;
    course.restarts =
      (tconShort < shortOhms && body.tcon.shortShows === 'loop') || (!shortedNow && !lightShort && body.overload === 'pulses');
    course.stops = course.starts && !course.restarts;
    if (course.restarts) course.starts = true;
    course.notice = noticeOf(around, now);
  } else if (psOnByMain && link && !now.railFed) course.notice = 'rail';
  else if (psOnByMain && silent && !course.restarts) course.notice = memory !== 'good' ? 'memory' : 'main';
  if (body.keys.stuck === 'switches-off' && command.keysIn && course.starts) course.stops = true;
}

function noticeOf({ body }: Surroundings, { plasmaShort, lightShort, audioShort, speakerShort, tconShort }: Rail): Notice {
  if (plasmaShort) return body.plasma.shorted === 'address' ? 'address' : 'sustain';
  if (lightShort) return 'light';
  if (audioShort < shortOhms || speakerShort < shortOhms) return 'sound';
  return tconShort < shortOhms ? 'panel' : 'rail';
}
