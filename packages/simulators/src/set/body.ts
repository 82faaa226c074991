/**
 * What a set is made of, as numbers and states that physics needs. A healthy body is the default; a fault changes some of it.
 * Currents in A, resistances in Ω, voltages as a share of nominal unless they say otherwise. Sizes are typical of mid-size
 * sets (values from memory); what matters is their order.
 */
export interface Body {
  outletLive: boolean;
  cord: { ohms: number; flaky: boolean };
  sourceGood: boolean;
  setting: 'right' | 'turned' | 'muted' | 'wrong-input';
  remote: { works: boolean; emits: boolean };
  /** How this owner starts the set. */
  ownerUses: 'remote' | 'key';

  fuseOpen: boolean;
  primaryShort: boolean;
  standby: { gain: number; limitAmperes: number };
  rail: { starts: boolean; limitAmperes: number; esrOhms: number };
  /** Power's supply for a driver of its own board. */
  lightRail: boolean;
  /** Power's reaction to an overload. */
  overload: 'pulses' | 'latches';
  panelRail: number;
  sustainRail: number;

  driver: { gives: boolean; trips: boolean };
  strips: {
    open: 'none' | 'led' | 'joint';
    shortedShare: number;
    failsAtFull: boolean;
    burntMark: boolean;
    flashes: boolean;
    stopsSet: boolean;
    tapHeals: boolean;
    limitSeen: boolean;
  };

  main: {
    regulator: 'good' | 'open' | 'shorted';
    givesPsOn: boolean;
    memory: { state: 'good' | 'unsteady' | 'dead'; shows: 'stuck' | 'late' | 'loop' };
    flash: { damaged: 'no' | 'boot' | 'start' | 'apps' };
    emmc: { worn: boolean; shows: 'late' | 'loop' | 'apps' };
    processor: {
      state: 'good' | 'dead' | 'bond';
      shows: 'late' | 'loop';
      heat: 'cold' | 'warm' | 'hot';
      psOn: boolean;
      pressHeals: boolean;
    };
    converter: 'good' | 'one-open' | 'one-shorted';
    lightCommand: boolean;
    audioShortOhms: number;
    audioSilent: boolean;
    inputGood: boolean;
    hung: 'no' | 'dark' | 'stuck' | 'apps';
    hungShort: boolean;
    /** Programs or settings spoilt: an update or a reset clears it. */
    software: boolean;
    pictureOut: boolean;
    panelSwitch: boolean;
  };
  tcon: {
    fuseOpen: boolean;
    supplyShortOhms: number;
    shortShows: 'stops' | 'loop' | 'no-start';
    bias: 'good' | 'one-missing' | 'all-missing';
    half: 'none' | 'left' | 'right';
    data: boolean;
    clock: boolean;
    clockShows: 'blank' | 'lines';
    /** A joint that makes contact from this temperature on, °C. */
    joint: { bad: boolean; heals: number; shows: 'blank' | 'lines' };
  };
  panel: {
    glass: 'clean' | 'cracked' | 'liquid';
    crackShows: 'lines' | 'half' | 'bar' | 'line';
    film: 'none' | 'left' | 'right';
    filmHalf: boolean;
    line: boolean;
    railShort: {
      at: 'none' | 'capacitor' | 'film';
      ohms: number;
      side: 'left' | 'right';
      shows: 'loop' | 'stops' | 'blank';
      misfound: boolean;
    };
    clockShort: 'none' | 'loop' | 'stops';
    bond: { loose: boolean; heals: number; shows: 'lines' | 'bar'; squeezeHeals: boolean };
    lineSqueeze: boolean;
    rowFilm: boolean;
    half: 'none' | 'left' | 'right';
    worn: boolean;
  };
  keys: { stuck: 'no' | 'blocks' | 'switches-off'; contact: boolean; eye: boolean };
  speakers: { shortOhms: number; open: boolean; shows: 'stops' | 'silent' };
  radio: { shorted: boolean; dead: boolean; shows: 'no-start' | 'loop' };
  fan: 'good' | 'stuck' | 'worn';
  /** Harness -> its contacts, and which of its wires the bad one is. */
  contacts: Record<
    string,
    {
      state: 'good' | 'open';
      sign: boolean;
      tapHeals: boolean;
      shows: 'blank' | 'lines';
      cleanHeals: boolean;
      wire: 'all' | 'start' | 'rail';
    }
  >;
  plasma: {
    shorted: 'none' | 'scan-sustain' | 'common-sustain' | 'scan-buffers' | 'address' | 'electrodes';
    dead: 'none' | 'logic' | 'scan-sustain' | 'common-sustain';
    deadShows: 'dots' | 'dark' | 'tint';
    bar: 'none' | 'rows' | 'columns';
    stops: 'stops' | 'no-start';
  };
  signs: { burnt: boolean; bulged: boolean };
  networkGood: boolean;
  /** Dust, a pad or a supply lets it run hot. */
  runsHot: boolean;
  /** The family's software shows its code, and this owner noticed the blinking rather than the stopping. */
  codeNoticed: boolean;
}

const infinite = Number.POSITIVE_INFINITY;

/** A set without a fault. */
export function healthyBody(): Body {
  return {
    outletLive: true,
    cord: { ohms: 0.3, flaky: false },
    sourceGood: true,
    setting: 'right',
    remote: { works: true, emits: true },
    ownerUses: 'remote',
    fuseOpen: false,
    primaryShort: false,
    standby: { gain: 1, limitAmperes: 1.2 },
    rail: { starts: true, limitAmperes: 5, esrOhms: 0.05 },
    lightRail: true,
    overload: 'pulses',
    panelRail: 1,
    sustainRail: 1,
    driver: { gives: true, trips: false },
    strips: {
      open: 'none',
      shortedShare: 0,
      failsAtFull: false,
      burntMark: false,
      flashes: false,
      stopsSet: false,
      tapHeals: false,
      limitSeen: true,
    },
    main: {
      regulator: 'good',
      givesPsOn: true,
      memory: { state: 'good', shows: 'stuck' },
      flash: { damaged: 'no' },
      emmc: { worn: false, shows: 'late' },
      processor: { state: 'good', shows: 'late', heat: 'warm', psOn: true, pressHeals: false },
      converter: 'good',
      lightCommand: true,
      audioShortOhms: infinite,
      audioSilent: false,
      inputGood: true,
      hung: 'no',
      hungShort: true,
      software: false,
      pictureOut: true,
      panelSwitch: true,
    },
    tcon: {
      fuseOpen: false,
      supplyShortOhms: infinite,
      shortShows: 'stops',
      bias: 'good',
      half: 'none',
      data: true,
      clock: true,
      clockShows: 'blank',
      joint: { bad: false, heals: 36, shows: 'blank' },
    },
    panel: {
      glass: 'clean',
      crackShows: 'lines',
      film: 'none',
      filmHalf: false,
      line: false,
      railShort: { at: 'none', ohms: 0.2, side: 'left', shows: 'blank', misfound: false },
      clockShort: 'none',
      bond: { loose: false, heals: 36, shows: 'lines', squeezeHeals: true },
      lineSqueeze: false,
      rowFilm: false,
      half: 'none',
      worn: false,
    },
    keys: { stuck: 'no', contact: true, eye: true },
    speakers: { shortOhms: infinite, open: false, shows: 'stops' },
    radio: { shorted: false, dead: false, shows: 'no-start' },
    fan: 'good',
    contacts: {},
    plasma: { shorted: 'none', dead: 'none', deadShows: 'dark', bar: 'none', stops: 'stops' },
    signs: { burnt: false, bulged: false },
    networkGood: true,
    runsHot: false,
    codeNoticed: false,
  };
}
