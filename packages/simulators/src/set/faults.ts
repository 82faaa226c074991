/**
 * Faults by physics: each changes the body, and nothing else knows of it. `home` is the assembly whose renewal ends it,
 * `part` the smaller thing whose renewal does. How a fault shows where it can show in several ways is drawn here once for the
 * very set. Shares are values from memory of how sets behave, not probabilities of a diagnosis.
 */
import type { Body } from './body.ts';
import { chance, pick, within, type Random } from './random.ts';

/** What a fault does to a body. */
export interface Defect {
  readonly home: string;
  readonly part?: string;
  apply(body: Body, random: Random): void;
}

const contact = (harness: string, shows: readonly ['blank' | 'lines', ...('blank' | 'lines')[]] = ['blank']): Defect => ({
  home: harness,
  apply: (body, random) => {
    body.contacts[harness] = {
      state: 'open',
      sign: chance(random, 0.3),
      tapHeals: chance(random, 0.45),
      shows: pick(random, shows),
      cleanHeals: chance(random, 0.85),
      wire: 'all',
    };
  },
});
const plasmaShort = (where: Body['plasma']['shorted']): Defect => ({
  home: where,
  apply: (body, random) => {
    body.plasma.shorted = where;
    body.plasma.stops = chance(random, 0.2) ? 'no-start' : 'stops';
    body.signs.burnt = chance(random, 0.25);
    body.codeNoticed = chance(random, 0.35);
  },
});

/** Faults by the pack’s ids. */
export const defects: Readonly<Record<string, Defect>> = {
  'outside.supply': {
    home: 'outside',
    apply: (body, random) => {
      // The outlet or strip, or the cord itself.
      if (chance(random, 0.8)) body.outletLive = false;
      else body.cord = { ohms: 1e9, flaky: chance(random, 0.4) };
    },
  },
  'outside.source': { home: 'outside', apply: (body) => void (body.sourceGood = false) },
  'outside.setting': {
    home: 'outside',
    part: 'setting',
    apply: (body, random) => void (body.setting = pick(random, ['turned', 'turned', 'turned', 'muted', 'muted', 'wrong-input'])),
  },
  'outside.network': { home: 'outside', apply: (body) => void (body.networkGood = false) },
  'outside.dust': { home: 'outside', apply: (body) => void (body.runsHot = true) },
  'outside.remote': { home: 'outside', apply: (body, random) => void (body.remote = { works: false, emits: chance(random, 0.35) }) },

  'power.fuse-open': {
    home: 'power',
    part: 'primary-switch',
    apply: (body, random) => {
      body.fuseOpen = true;
      body.primaryShort = chance(random, 0.85);
      body.signs.burnt = chance(random, 0.3);
    },
  },
  'power.standby-dead': { home: 'power', apply: (body) => void (body.standby.gain = 0) },
  'power.standby-weak': { home: 'power', apply: (body, random) => void (body.standby.limitAmperes = within(random, 0.15, 0.38)) },
  'power.rails-dead': {
    home: 'power',
    apply: (body, random) => {
      body.rail.starts = false;
      body.codeNoticed = chance(random, 0.3);
    },
  },
  'power.rail-sags': {
    home: 'power',
    apply: (body, random) => {
      body.rail.limitAmperes = within(random, 1.4, 2.6);
      body.overload = chance(random, 0.6) ? 'pulses' : 'latches';
      body.signs.bulged = chance(random, 0.15);
      body.codeNoticed = chance(random, 0.2);
    },
  },
  'power.caps-dried': {
    home: 'power',
    part: 'rail-capacitors',
    apply: (body, random) => {
      body.rail.esrOhms = within(random, 1.5, 6);
      body.signs.bulged = chance(random, 0.65);
    },
  },
  'power.runs-hot': { home: 'power', apply: (body) => void (body.runsHot = true) },
  'power.light-rail-dead': { home: 'power', apply: (body) => void (body.lightRail = false) },
  'power.panel-rail-dead': { home: 'power', apply: (body) => void (body.panelRail = 0) },
  'power.sustain-dead': { home: 'power', apply: (body) => void (body.sustainRail = 0) },

  'driver.dead': { home: 'driver', apply: (body) => void (body.driver.gives = false) },
  'driver.trips': {
    home: 'driver',
    apply: (body, random) => {
      body.driver.trips = true;
      body.strips.flashes = chance(random, 0.7);
    },
  },
  'driver.arcing': {
    home: 'driver',
    apply: (body, random) => {
      body.driver.trips = true;
      body.strips.flashes = chance(random, 0.8);
      body.signs.burnt = chance(random, 0.5);
    },
  },
  'strips.lamp-worn': {
    home: 'strips',
    apply: (body) => void Object.assign(body.strips, { failsAtFull: true, flashes: true }),
  },
  'strips.led-open': {
    home: 'strips',
    apply: (body, random) => {
      Object.assign(body.strips, {
        open: 'led',
        flashes: chance(random, 0.3),
        burntMark: chance(random, 0.85),
        tapHeals: chance(random, 0.1),
        limitSeen: chance(random, 0.85),
      });
    },
  },
  'strips.joint-open': {
    home: 'strips',
    apply: (body, random) => {
      Object.assign(body.strips, {
        open: 'joint',
        flashes: chance(random, 0.3),
        tapHeals: chance(random, 0.5),
        stopsSet: chance(random, 0.12),
        limitSeen: chance(random, 0.85),
      });
    },
  },
  'strips.led-shorted': {
    home: 'strips',
    apply: (body, random) => {
      Object.assign(body.strips, { shortedShare: within(random, 0.15, 0.5), flashes: chance(random, 0.65), stopsSet: chance(random, 0.1) });
      body.codeNoticed = chance(random, 0.5);
    },
  },
  'strips.weak-at-full': {
    home: 'strips',
    apply: (body, random) =>
      void Object.assign(body.strips, { failsAtFull: true, flashes: chance(random, 0.7), burntMark: chance(random, 0.85) }),
  },

  'main.standby-regulator': {
    home: 'main',
    apply: (body, random) => void (body.main.regulator = pick(random, ['open', 'open', 'shorted'])),
  },
  'main.no-ps-on': { home: 'main', apply: (body) => void (body.main.givesPsOn = false) },
  'main.startup-memory': {
    home: 'main',
    part: 'startup-memory',
    apply: (body, random) => {
      body.main.memory = { state: chance(random, 0.85) ? 'unsteady' : 'dead', shows: pick(random, ['stuck', 'late', 'loop']) };
      if (body.main.memory.state === 'dead') body.main.memory.shows = 'stuck';
    },
  },
  'main.flash-content': {
    home: 'main',
    part: 'flash-content',
    apply: (body, random) => void (body.main.flash.damaged = pick(random, ['start', 'start', 'start', 'boot', 'boot', 'apps'])),
  },
  'main.emmc-worn': {
    home: 'main',
    apply: (body, random) => void (body.main.emmc = { worn: true, shows: pick(random, ['late', 'loop', 'apps']) }),
  },
  'main.processor': {
    home: 'main',
    apply: (body, random) => {
      Object.assign(body.main.processor, { state: 'dead', heat: pick(random, ['cold', 'warm', 'hot']), psOn: chance(random, 0.2) });
      body.codeNoticed = chance(random, 0.15);
    },
  },
  'main.bond-warm': {
    home: 'main',
    apply: (body, random) =>
      void Object.assign(body.main.processor, {
        state: 'bond',
        shows: pick(random, ['late', 'late', 'loop']),
        pressHeals: chance(random, 0.35),
      }),
  },
  'main.rail-missing': {
    home: 'main',
    apply: (body, random) => {
      body.main.converter = chance(random, 0.2) ? 'one-shorted' : 'one-open';
      body.main.processor.heat = 'cold';
      body.codeNoticed = chance(random, 0.3);
    },
  },
  'main.light-command': { home: 'main', apply: (body) => void (body.main.lightCommand = false) },
  'main.audio-short': {
    home: 'main',
    part: 'audio-stage',
    apply: (body, random) => {
      if (chance(random, 0.15)) body.main.audioSilent = true;
      else body.main.audioShortOhms = within(random, 0.2, 3);
      body.overload = chance(random, 0.75) ? 'pulses' : 'latches';
      body.codeNoticed = chance(random, 0.15);
    },
  },
  'main.audio-dead': { home: 'main', part: 'audio-stage', apply: (body) => void (body.main.audioSilent = true) },
  'main.software': { home: 'main', part: 'software', apply: (body) => void (body.main.software = true) },
  'main.heatsink-pad': {
    home: 'main',
    apply: (body) => {
      body.runsHot = true;
      body.main.processor.heat = 'hot';
    },
  },
  'tuner.dead': { home: 'tuner', apply: (body) => void (body.main.inputGood = false) },
  'main.input-dead': { home: 'main', apply: (body) => void (body.main.inputGood = false) },
  'main.hung': {
    home: 'main',
    part: 'hung',
    apply: (body, random) => {
      body.main.hung = pick(random, ['stuck', 'stuck', 'stuck', 'stuck', 'stuck', 'dark', 'apps']);
      body.main.hungShort = chance(random, 0.85);
    },
  },
  'main.picture-out': { home: 'main', apply: (body) => void (body.main.pictureOut = false) },
  'main.panel-switch': { home: 'main', apply: (body) => void (body.main.panelSwitch = false) },

  'tcon.fuse-open': { home: 'tcon', part: 'tcon-fuse', apply: (body) => void (body.tcon.fuseOpen = true) },
  'tcon.supply-short': {
    home: 'tcon',
    apply: (body, random) => {
      body.tcon.supplyShortOhms = within(random, 0.1, 1.5);
      body.tcon.shortShows = pick(random, ['stops', 'stops', 'loop', 'loop', 'no-start']);
      body.overload = chance(random, 0.65) ? 'pulses' : 'latches';
      body.codeNoticed = chance(random, 0.15);
    },
  },
  'tcon.bias-dead': { home: 'tcon', apply: (body, random) => void (body.tcon.bias = pick(random, ['one-missing', 'all-missing'])) },
  'tcon.half-dead': { home: 'tcon', apply: (body, random) => void (body.tcon.half = pick(random, ['left', 'right'])) },
  'tcon.data-corrupt': { home: 'tcon', apply: (body) => void (body.tcon.data = false) },
  'tcon.clock-dead': {
    home: 'tcon',
    apply: (body, random) => void Object.assign(body.tcon, { clock: false, clockShows: pick(random, ['blank', 'lines']) }),
  },

  'tcon.joint-warm': {
    home: 'tcon',
    apply: (body, random) => void (body.tcon.joint = { bad: true, heals: within(random, 34, 48), shows: pick(random, ['blank', 'lines']) }),
  },

  'panel.film-across': { home: 'panel', apply: (body) => void (body.panel.rowFilm = true) },
  'panel.half-dead': { home: 'panel', apply: (body, random) => void (body.panel.half = pick(random, ['left', 'right'])) },
  'panel.cells-worn': { home: 'panel', apply: (body) => void (body.panel.worn = true) },
  'panel.electrode-short': { ...plasmaShort('electrodes'), home: 'panel' },
  'panel.glass-cracked': {
    home: 'panel',
    apply: (body, random) =>
      void Object.assign(body.panel, { glass: 'cracked', crackShows: pick(random, ['lines', 'lines', 'half', 'bar', 'line']) }),
  },
  'panel.film-left': {
    home: 'panel',
    apply: (body, random) => void Object.assign(body.panel, { film: 'left', filmHalf: chance(random, 0.15) }),
  },
  'panel.film-right': {
    home: 'panel',
    apply: (body, random) => void Object.assign(body.panel, { film: 'right', filmHalf: chance(random, 0.15) }),
  },
  'panel.line-bond': {
    home: 'panel',
    apply: (body, random) => void Object.assign(body.panel, { line: true, lineSqueeze: chance(random, 0.35) }),
  },
  'panel.rail-short-cap': railShort('capacitor', 'bias-capacitor'),
  'panel.rail-short-film': railShort('film'),
  'panel.clock-short': {
    home: 'panel',
    part: 'clock-mask',
    apply: (body, random) => void (body.panel.clockShort = pick(random, ['loop', 'loop', 'stops'])),
  },
  'panel.bond-intermittent': {
    home: 'panel',
    apply: (body, random) =>
      void (body.panel.bond = {
        loose: true,
        heals: within(random, 34, 48),
        shows: pick(random, ['lines', 'lines', 'bar']),
        squeezeHeals: chance(random, 0.85),
      }),
  },

  'keys.stuck': { home: 'keys', apply: (body, random) => void (body.keys.stuck = chance(random, 0.85) ? 'blocks' : 'switches-off') },
  'keys.no-contact': {
    home: 'keys',
    apply: (body) => {
      body.keys.contact = false;
      body.ownerUses = 'key';
    },
  },
  'keys.eye-dead': { home: 'keys', apply: (body) => void (body.keys.eye = false) },
  'speakers.shorted': {
    home: 'speakers',
    apply: (body, random) => {
      body.speakers.shows = chance(random, 0.65) ? 'stops' : 'silent';
      body.speakers.shortOhms = within(random, 0.1, 1);
      body.overload = chance(random, 0.7) ? 'pulses' : 'latches';
    },
  },
  'speakers.open': { home: 'speakers', apply: (body) => void (body.speakers.open = true) },
  'radio.shorted': {
    home: 'radio',
    apply: (body, random) => void Object.assign(body.radio, { shorted: true, shows: pick(random, ['no-start', 'no-start', 'loop']) }),
  },
  'radio.dead': { home: 'radio', apply: (body) => void (body.radio.dead = true) },
  'fans.stuck': { home: 'fans', apply: (body, random) => void (body.fan = pick(random, ['stuck', 'worn'])) },

  'harness.power-main.loose': {
    home: 'harness.power-main',
    apply: (body, random) => {
      contact('harness.power-main').apply(body, random);
      const loose = body.contacts['harness.power-main'];
      if (loose) loose.wire = pick(random, ['all', 'start', 'rail']);
    },
  },
  'harness.ground.loose': contact('harness.ground'),
  'harness.keys.loose': {
    home: 'harness.keys',
    apply: (body, random) => {
      contact('harness.keys').apply(body, random);
      body.ownerUses = 'key';
    },
  },
  'harness.logic.loose': contact('harness.logic'),
  'harness.sustain.loose': contact('harness.sustain'),
  'harness.light.loose': contact('harness.light'),
  'harness.driver.loose': contact('harness.driver'),
  'harness.tcon-power.loose': contact('harness.tcon-power'),
  'harness.picture.loose': contact('harness.picture', ['blank', 'lines']),
  'harness.panel-left.loose': contact('harness.panel-left', ['blank', 'blank', 'lines']),
  'harness.panel-right.loose': contact('harness.panel-right', ['blank', 'blank', 'lines']),

  'logic.dead': { home: 'logic', apply: (body) => void (body.plasma.dead = 'logic') },
  'scan-sustain.shorted': plasmaShort('scan-sustain'),
  'scan-sustain.dead': {
    home: 'scan-sustain',
    apply: (body, random) => void Object.assign(body.plasma, { dead: 'scan-sustain', deadShows: pick(random, ['dots', 'dark']) }),
  },
  'common-sustain.shorted': plasmaShort('common-sustain'),
  'common-sustain.dead': {
    home: 'common-sustain',
    apply: (body, random) =>
      void Object.assign(body.plasma, { dead: 'common-sustain', deadShows: pick(random, ['tint', 'tint', 'tint', 'tint', 'dark']) }),
  },
  'scan-buffers.shorted': plasmaShort('scan-buffers'),
  'scan-buffers.bar': { home: 'scan-buffers', apply: (body) => void (body.plasma.bar = 'rows') },
  'address.shorted': plasmaShort('address'),
  'address.bar': { home: 'address', apply: (body) => void (body.plasma.bar = 'columns') },
};

function railShort(at: 'capacitor' | 'film', part?: string): Defect {
  return {
    home: 'panel',
    ...(part === undefined ? {} : { part }),
    apply: (body, random) => {
      body.panel.railShort = {
        at,
        ohms: within(random, 0.05, 0.3),
        side: pick(random, ['left', 'right']),
        shows: pick(random, ['loop', 'stops', 'blank']),
        misfound: chance(random, 0.1),
      };
    },
  };
}
