/**
 * From mains to picture, in the order in which a set comes alive. Each stage asks what reaches it, what hangs on it, and what
 * it gives on; nothing is looked up by fault.
 */
import type { Family } from '@veglia/core/knowledge';
import { warmthOf, type BenchState } from './bench.ts';
import type { Body } from './body.ts';
import type { Build, Light, Notice, Picture, Scene, Volts } from './scene.ts';
import { bootOf, flat, hangs, lightOf, memoryNow, pictureOf, plasmaShortOff, plasmaVolts, processorNow } from './stages.ts';

/** A start by key, by remote, or by whichever works. */
export type Ask = 'none' | 'key' | 'remote' | 'any';

// Loads of a healthy set, A at nominal volts (values from memory).
const loads = { standbyIdle: 0.15, standbyStart: 0.45, main: 1, tcon: 0.5, radio: 0.2, driver: 1.2, selfLit: 1.2 } as const;
/** A short pulls at least this, whatever the supply would give. */
const shortOhms = 5;

export function propagate(build: Build, body: Body, bench: BenchState, ask: Ask): Scene {
  const { layout, family } = build;
  const has = (node: string): boolean => layout.assemblies.includes(node);
  const trait = (id: string): boolean => family?.traits[id] === 'yes';
  const out = (node: string): boolean => bench.out.has(node);
  /** A node or harness carries: there or not of this layout, in its place, contacts good. */
  const linked = (harness: string, wire: 'all' | 'start' | 'rail' = 'all'): boolean => {
    if (!has(harness)) return true;
    const contacts = body.contacts[harness];
    const good =
      contacts?.state !== 'open' ||
      (contacts.wire !== 'all' && contacts.wire !== wire) ||
      bench.tapped.has(harness) ||
      (bench.cleaned.has(harness) && contacts.cleanHeals);
    return !out(harness) && good;
  };
  const mainNode = layout.merges.main ?? 'main';
  const powerNode = layout.merges.power ?? 'power';
  const substitute = bench.fitted.get('main');
  const board = substitute === 'jig' || substitute === 'universal' ? substitute : undefined;

  // Mains, fuse, standby.
  const cord = body.cord.ohms < 1000 && !(bench.tapped.has('cord') && body.cord.flaky);
  const mains = bench.plugged && (body.outletLive || bench.supply.has('known-outlet')) && cord;
  const bulk = mains && !body.fuseOpen;
  const link = linked('harness.power-main') && !out(mainNode);
  const regulatorShort = body.main.regulator === 'shorted' && link && !board ? 3 : 0;
  const standbyAt = (own: number): number => {
    if (!bulk || body.standby.gain === 0) return 0;
    const amperes = (link ? own : 0) + regulatorShort + (bench.loads.get('standby') ?? 0);
    return body.standby.gain * Math.min(1, body.standby.limitAmperes / Math.max(amperes, 0.001));
  };
  const standbyIdle = standbyAt(loads.standbyIdle);
  const standbyStart = ask === 'none' && bench.bridged.length === 0 ? standbyIdle : standbyAt(loads.standbyStart);
  const hungNow = hangs(body, bench);
  const wokenMain = link && standbyIdle >= 0.9 && body.main.regulator === 'good' && !board;
  const awake = wokenMain && !(hungNow && body.main.hung === 'dark');

  // Who is heard.
  const keysIn = !out('keys') && linked('harness.keys');
  const keyHeard = keysIn && body.keys.contact && body.keys.stuck === 'no';
  const remoteHeard = body.keys.eye && (body.remote.works || bench.supply.has('known-remote')) && (body.keys.stuck !== 'blocks' || !keysIn);
  const processor = processorNow(body, bench, mainNode);
  const listens = awake && !hungNow && (processor.runs || body.main.processor.psOn || body.main.processor.state === 'bond');
  const answersKey = listens && keyHeard;
  const answersRemote = listens && remoteHeard;
  const setting = bench.reset && body.setting !== 'turned' ? 'right' : body.setting;
  const asked = ask === 'key' ? keyHeard : ask === 'remote' ? remoteHeard : ask === 'any' && (keyHeard || remoteHeard);

  // PS_ON and the big rail.
  const forced = bench.bridged.some((pair) => pair.includes('ps-on')) && standbyIdle > 0.3;
  const memory = memoryNow(body, bench, mainNode);
  const psOnByMain =
    listens && asked && body.main.givesPsOn && linked('harness.power-main', 'start') && standbyStart >= 0.88 && memory !== 'dead';
  const defaultsOn = !link && has('strips') && trait('light.defaults-on') && bulk && standbyIdle > 0.5;
  const psOn = psOnByMain || forced || defaultsOn || board !== undefined;
  const railFed = bulk && psOn && body.rail.starts && standbyIdle > 0.15;
  const feedsTcon = (!has('harness.picture') || linked('harness.picture')) && (link || board !== undefined);
  const tconIn = has('tcon') ? feedsTcon && !out('tcon') : layout.merges.tcon !== undefined && feedsTcon;
  const tconPowered = has('harness.tcon-power') ? linked('harness.tcon-power') && !out('tcon') : tconIn;
  const audioShort = link && !board ? body.main.audioShortOhms : Infinity;
  const speakerShort = link && !board && !out('speakers') && body.speakers.shows === 'stops' ? body.speakers.shortOhms : Infinity;
  const tconShort =
    tconPowered && (has('harness.tcon-power') || body.main.panelSwitch || board !== undefined) && !body.tcon.fuseOpen
      ? body.tcon.supplyShortOhms
      : Infinity;
  const plasmaShort = body.plasma.shorted !== 'none' && !plasmaShortOff(body, out);
  const lightShort = body.strips.shortedShare > 0 && body.strips.stopsSet && linked('harness.light');
  const amperes =
    (link ? loads.main + (out('radio') ? 0 : loads.radio) : 0) +
    (tconPowered ? loads.tcon : 0) +
    (has('strips') && linked('harness.driver') && linked('harness.light')
      ? loads.driver
      : !has('strips') && (tconPowered || has('logic'))
        ? loads.selfLit
        : 0);
  const shortedNow = [audioShort, speakerShort, tconShort].some((ohms) => ohms < shortOhms) || plasmaShort;
  const overloaded = shortedNow || lightShort || amperes > body.rail.limitAmperes;
  const powerWarm = warmthOf(bench, powerNode, 'power');
  const drySupply = body.rail.esrOhms > 1 && powerWarm < 34 && amperes > loads.main && bench.presses < 3 && bench.patience < 3;
  const pulses = overloaded ? body.overload === 'pulses' : drySupply;
  const rail: Volts = !railFed
    ? flat(0)
    : overloaded
      ? { idle: 0, value: body.overload === 'pulses' ? 0.4 : 0.02, peak: shortedNow ? 0.55 : 0.95, steady: false }
      : drySupply
        ? { idle: 0, value: 0.82, peak: 0.98, steady: false }
        : { idle: 0, value: 1, peak: 1, steady: true };
  const railGood = rail.steady && rail.value > 0.85;

  // Main's converters, start-up, content.
  const radioShort = body.radio.shorted && !out('radio') && !board;
  const railLink = link && linked('harness.power-main', 'rail');
  const mainFed = railLink && railFed && (railGood || pulses);
  const oneMissing = body.main.converter !== 'good' || radioShort;
  const converters: 'none' | 'one' | 'all' = !mainFed ? 'all' : oneMissing ? 'one' : rail.value < 0.6 ? 'all' : 'none';
  const coreUp =
    mainFed && railGood && (body.main.converter === 'good' || board !== undefined) && (!radioShort || body.radio.shows === 'loop');
  const waitsForPanel = trait('main.waits-for-panel') && !tconIn;
  const bondBad = body.main.processor.state === 'bond' && !processor.runs;
  const boot = board
    ? { reached: railGood ? 'runs' : 'silent', late: false, loops: false }
    : bootOf(body, {
        coreUp,
        processorRuns: processor.runs,
        bondBad,
        memory,
        radioShort,
        waitsForPanel,
        patience: bench.patience,
        presses: bench.presses,
      });
  const drySlow = drySupply && railFed && !overloaded;
  let starts = boot.reached === 'runs' && psOn && (psOnByMain || board !== undefined);
  let restarts = boot.loops && psOnByMain;
  let stops = false;
  let late = boot.late;
  if (drySlow && psOnByMain) {
    starts = false;
    late = true;
  }

  // Protections that strike once it runs.
  let notice: Notice | undefined;
  const asksLight = starts || restarts;
  if (psOnByMain && overloaded) {
    starts = shortedNow ? body.tcon.supplyShortOhms === Infinity || body.tcon.shortShows !== 'no-start' : true;
    if (plasmaShort && body.plasma.stops === 'no-start') starts = false;
    restarts = (tconShort < shortOhms && body.tcon.shortShows === 'loop') || (!shortedNow && !lightShort && body.overload === 'pulses');
    stops = starts && !restarts;
    if (restarts) starts = true;
    notice = plasmaShort
      ? body.plasma.shorted === 'address'
        ? 'address'
        : 'sustain'
      : lightShort
        ? 'light'
        : audioShort < shortOhms || speakerShort < shortOhms
          ? 'sound'
          : tconShort < shortOhms
            ? 'panel'
            : 'rail';
  } else if (psOnByMain && link && !railFed) notice = 'rail';
  else if (psOnByMain && mainFed && boot.reached !== 'runs' && !restarts) notice = memory !== 'good' ? 'memory' : 'main';
  if (body.keys.stuck === 'switches-off' && keysIn && starts) stops = true;

  // Panel side.
  const switchedOn = (starts || restarts || stops) && body.main.panelSwitch;
  const jigged = board !== undefined && (has('harness.tcon-power') ? railFed : railGood);
  const panelFed = has('harness.tcon-power')
    ? (switchedOn || jigged || (forced && railFed)) && body.panelRail > 0.5
    : switchedOn || (board === 'universal' && railGood);
  const tconSupplyIn = panelFed && tconPowered;
  const tconFed = tconSupplyIn && !body.tcon.fuseOpen && body.tcon.supplyShortOhms > shortOhms;
  const sideIn = (side: 'left' | 'right'): boolean =>
    has(`harness.panel-${side}`) ? linked(`harness.panel-${side}`) : has('harness.picture') ? linked('harness.picture') : true;
  const sidePlugged = (side: 'left' | 'right'): boolean => (has(`harness.panel-${side}`) ? !out(`harness.panel-${side}`) : tconIn);
  const railShort =
    body.panel.railShort.at !== 'none' &&
    sidePlugged(body.panel.railShort.side) &&
    !(bench.lifted.has('bias-capacitor') && body.panel.railShort.at === 'capacitor');
  const clockTaped = bench.taped.has('clock-lines');
  const clockShort = body.panel.clockShort !== 'none' && !clockTaped && (sidePlugged('left') || sidePlugged('right')) && tconIn;
  const biasUp = tconFed && body.tcon.bias === 'good' && !railShort;
  const running = starts && !stops && !restarts;
  if (running && tconFed && (clockShort || (railShort && body.panel.railShort.shows !== 'blank'))) {
    const shows = clockShort ? body.panel.clockShort : body.panel.railShort.shows;
    restarts = shows === 'loop';
    stops = !restarts;
    notice = 'panel';
  }
  if (running && has('fans') && body.fan === 'stuck' && trait('code.names-missing-board')) notice = 'fan';

  const alive = starts && !stops && !restarts && !late;
  const runs = starts && !stops && !restarts;

  // Light.
  const commanded =
    (asksLight || runs || stops) &&
    (board !== undefined || (body.main.lightCommand && link && (!trait('tcon.carries-light-command') || tconFed)));
  const forcedLight = bench.bridged.some((pair) => pair.includes('bl-on'));
  const driverFed = railFed && body.lightRail && (railGood || pulses || rail.peak > 0.5) && linked('harness.driver') && !out('driver');
  const driverAsked = commanded || forcedLight || defaultsOn || (forced && !link && trait('light.defaults-on'));
  const lit = lightOf(body, bench, driverFed && driverAsked && body.driver.gives, linked('harness.light'));
  const stripsStop = body.strips.stopsSet && body.strips.open !== 'none' && runs && driverAsked && lit.light !== 'on';
  if (stripsStop) stops = true;
  if (runs && lit.faulty && has('strips')) notice ??= 'light';
  const light: Light = !has('strips') ? 'off' : late ? 'off' : lit.light;

  // Sound and picture.
  const runsNow = runs && !stops && !late;
  const amplifier = body.main.audioShortOhms > shortOhms && !body.main.audioSilent;
  const sound =
    runsNow &&
    board === undefined &&
    amplifier &&
    !out('speakers') &&
    !body.speakers.open &&
    !(body.speakers.shows === 'silent' && body.speakers.shortOhms < shortOhms) &&
    setting !== 'muted';
  const plainSet = bench.pressed === 'menu' || bench.pressed === 'pattern' || bench.pressed === 'service';
  const sourceThere = body.sourceGood || bench.supply.has('known-source') || bench.supply.has('other-input');
  const inputThere =
    (body.main.inputGood || bench.supply.has('other-input')) && (setting !== 'wrong-input' || bench.supply.has('other-input'));
  const frozen =
    runsNow &&
    board === undefined &&
    (body.main.flash.damaged === 'apps' ||
      (body.main.emmc.worn && body.main.emmc.shows === 'apps') ||
      (hungNow && body.main.hung === 'apps') ||
      (body.main.software && !bench.updated && !bench.reset));
  const drawn: Picture =
    !(runsNow || board !== undefined) || !railGood
      ? 'none'
      : pictureOf(build, body, bench, {
          tconFed,
          biasUp,
          fromMain: (board !== undefined || body.main.pictureOut) && (has('harness.picture') ? linked('harness.picture') : true),
          sideIn,
          clockTaped,
          clockShort,
          plasmaOn: body.sustainRail > 0.5 && linked('harness.sustain') && linked('harness.logic'),
          board,
        });
  // A bad ground at the boards shows in the picture first.
  const grounded: Picture = drawn === 'good' && !linked('harness.ground') ? 'lines' : drawn;
  const atInput: Picture = plainSet || board !== undefined ? grounded : !sourceThere || !inputThere ? 'none' : grounded;
  const seenPicture: Picture =
    has('strips') && light !== 'on' && light !== 'dim' ? (bench.pressed === 'menu' && drawn !== 'none' ? 'faint' : 'none') : atInput;
  const networkUp =
    runsNow &&
    (bench.supply.has('known-network') ||
      ((body.networkGood || bench.supply.has('other-network')) && !body.radio.dead && !radioShort && !out('radio'))) &&
    !frozen;

  const tconPeak = panelFed && tconPowered ? (body.tcon.supplyShortOhms < shortOhms && !body.tcon.fuseOpen ? 0.3 : 1) : 0;
  const switchPeak = switchedOn ? (tconShort < shortOhms ? 0.3 : 1) : 0;
  const biasMissing: 'none' | 'one' | 'all' = !tconFed
    ? 'all'
    : railShort
      ? body.panel.railShort.misfound
        ? 'all'
        : 'one'
      : body.tcon.bias === 'good'
        ? 'none'
        : body.tcon.bias === 'one-missing'
          ? 'one'
          : 'all';
  const on = (share: number, steady = true): Volts => ({ idle: 0, value: steady ? share : 0, peak: share, steady: steady && share > 0 });
  const persists = runsNow || forced || board !== undefined;
  const sustain = plasmaVolts(
    railFed && psOn,
    body.sustainRail,
    body.plasma.shorted !== 'none' && body.plasma.shorted !== 'address' && plasmaShort,
    overloaded && !plasmaShort,
  );
  const address = plasmaVolts(
    railFed && psOn,
    1,
    body.plasma.shorted === 'address' && plasmaShort,
    overloaded && !(plasmaShort && body.plasma.shorted === 'address'),
  );
  const keyMoves = wokenMain && keysIn && body.keys.contact && body.keys.stuck === 'no';
  return {
    mains,
    awake,
    indicator:
      awake || board !== undefined
        ? board !== undefined
          ? bulk && standbyIdle > 0.5 && railFed
            ? 'steady'
            : 'off'
          : !runsNow && notice !== undefined && hasCode(family, notice)
            ? 'blinking'
            : 'steady'
        : 'off',
    notice: !runsNow || notice === 'light' || notice === 'fan' ? notice : undefined,
    clicks: psOn && bulk && standbyIdle > 0.3 && (psOnByMain || forced),
    reacts: { key: answersKey && (runsNow || late), remote: answersRemote && (runsNow || late) },
    starts: starts || restarts,
    alive: runsNow && alive && !late,
    late,
    restarts,
    log:
      !psOnByMain || !mainFed || !(processor.runs || body.main.processor.state === 'bond') || body.main.converter !== 'good'
        ? 'silent'
        : drySupply || overloaded
          ? 'stops'
          : boot.reached === 'runs'
            ? 'runs'
            : boot.reached === 'stops'
              ? 'stops'
              : 'silent',
    light:
      runsNow || defaultsOn || forcedLight || board !== undefined
        ? light
        : (stops || restarts) && has('strips') && light === 'on'
          ? 'flash'
          : (stops || restarts) && light === 'flash'
            ? 'flash'
            : 'off',
    sound,
    headphones: runsNow && !body.main.audioSilent && setting !== 'muted',
    picture: frozen && bench.pressed === 'menu' ? 'frozen' : seenPicture,
    input: runsNow && sourceThere && inputThere ? 'works' : 'dead',
    network: networkUp ? 'works' : 'dead',
    frozen,
    hot: runsNow && body.runsHot,
    fan: !(runs || stops) || body.fan === 'stuck' ? 'silent' : body.fan === 'worn' ? 'noisy' : 'spins',
    processor: coreUp
      ? body.main.processor.state === 'dead' || body.main.processor.heat === 'hot'
        ? body.main.processor.heat
        : 'warm'
      : mainFed && converters !== 'all'
        ? body.main.processor.heat
        : 'cold',
    logicLamp:
      has('logic') &&
      railFed &&
      !overloaded &&
      link &&
      body.main.panelSwitch &&
      linked('harness.picture') &&
      body.plasma.dead !== 'logic' &&
      !out('logic'),
    volts: {
      standby: { idle: standbyIdle, value: standbyStart, peak: standbyIdle, steady: standbyStart > 0.9 * standbyIdle },
      'ps-on': { idle: 0, value: psOnByMain || forced ? 1 : 0, peak: psOnByMain || forced ? 1 : 0, steady: true },
      'main-rail': rail,
      'bl-on': on(commanded || forcedLight ? 1 : 0),
      dim: on(commanded || forcedLight ? 1 : 0),
      'bl-err': {
        idle: 0,
        value: lit.faulty && driverFed && driverAsked && body.driver.gives ? 1 : 0,
        peak: lit.faulty && driverFed && driverAsked && body.driver.gives ? 1 : 0,
        steady: true,
      },
      'key-wire': { idle: wokenMain ? 1 : 0, value: keyMoves ? 0.2 : wokenMain ? 1 : 0, peak: wokenMain ? 1 : 0, steady: true },
      bulk: on(bulk ? 1 : 0),
      'tcon-input': on(tconPeak, persists),
      'tcon-fuse-out': on(body.tcon.fuseOpen ? 0 : tconPeak, persists),
      'panel-switch': on(has('logic') ? (railGood && link && body.main.panelSwitch ? 1 : 0) : switchPeak, persists),
      'panel-pairs': on(runsNow && tconFed && body.tcon.clock ? (body.tcon.half === 'none' ? 1 : 0.5) : 0),
      'picture-pairs': on(runsNow && body.main.pictureOut ? 1 : 0),
      'led-plug': lit.volts,
      'driver-supply': on(driverFed ? 1 : 0),
      'panel-supply': on((psOnByMain || forced) && railFed && !overloaded ? body.panelRail : 0),
      sustain,
      'address-rail': address,
    },
    missing: { 'main-converters': converters, bias: biasMissing },
  };
}

const hasCode = (family: Family | undefined, notice: Notice): boolean => family?.blink.some((code) => code.notices === notice) ?? false;
