/** Single stages of the way from mains to picture, each told from what reaches it. */
import { warmthOf, type BenchState } from './bench.ts';
import type { Body } from './body.ts';
import type { Build, Light, Picture, Volts } from './scene.ts';

/** The same share of its value at all times. */
export const flat = (share: number): Volts => ({ idle: share, value: share, peak: share, steady: share > 0 });

/** The high supplies of a plasma set, as shares of their value. */
export function plasmaVolts(fed: boolean, share: number, shorted: boolean, sags: boolean): Volts {
  if (!fed || share === 0) return flat(0);
  if (shorted) return { idle: 0, value: 0.02, peak: 0.3, steady: false };
  return sags ? { idle: 0, value: 0.3, peak: 0.95, steady: false } : { idle: 0, value: share, peak: share, steady: true };
}

/** Buffers hang on the scan board: with it out they are out too. */
export function plasmaShortOff(body: Body, out: (node: string) => boolean): boolean {
  const { shorted } = body.plasma;
  if (shorted === 'scan-buffers') return out('scan-buffers') || out('scan-sustain');
  // The glass is driven from both sides: either board out takes the load off its rail.
  if (shorted === 'electrodes') return out('scan-sustain') || out('common-sustain');
  return out(shorted);
}

/** A latched processor lets go once it was truly without charge: own button held, and long enough unplugged. */
export function hangs(body: Body, bench: BenchState): boolean {
  if (body.main.hung === 'no') return false;
  if (bench.updated || bench.reset) return !(body.main.hung === 'apps' || bench.reset);
  const minutes = body.main.hungShort ? 4 : 20;
  return !(bench.drained && bench.unpluggedMinutes >= minutes);
}

/** Whether the processor runs with what it is given. */
export function processorNow(body: Body, bench: BenchState, mainNode: string): { runs: boolean } {
  const { state, pressHeals } = body.main.processor;
  if (state === 'good') return { runs: true };
  if (state === 'dead') return { runs: false };
  return { runs: warmthOf(bench, 'processor', mainNode, 'main') >= 34 || (pressHeals && bench.tapped.has('processor')) };
}

/** An unsteady memory reads well when it is well chilled. */
export function memoryNow(body: Body, bench: BenchState, mainNode: string): 'good' | 'bad' | 'dead' {
  const { state } = body.main.memory;
  if (state === 'good') return 'good';
  if (state === 'dead') return 'dead';
  return warmthOf(bench, 'memory', mainNode, 'main') < 5 ? 'good' : 'bad';
}

interface BootFacts {
  readonly coreUp: boolean;
  readonly processorRuns: boolean;
  readonly bondBad: boolean;
  readonly memory: 'good' | 'bad' | 'dead';
  readonly radioShort: boolean;
  readonly waitsForPanel: boolean;
  readonly patience: number;
  readonly presses: number;
}

/** How far a start comes. */
export function bootOf(body: Body, now: BootFacts): { reached: 'runs' | 'stops' | 'silent'; late: boolean; loops: boolean } {
  const stuck = { reached: 'silent' as const, late: false, loops: false };
  if (!now.coreUp) return stuck;
  if (now.waitsForPanel) return { ...stuck, reached: 'stops' };
  const patient = now.patience >= 3 || now.presses >= 3;
  const byShow = (shows: string): { reached: 'runs' | 'stops' | 'silent'; late: boolean; loops: boolean } =>
    shows === 'loop'
      ? { reached: 'stops', late: false, loops: true }
      : shows === 'late'
        ? { reached: 'runs', late: !patient, loops: false }
        : { reached: 'stops', late: false, loops: false };
  if (now.bondBad) return byShow(body.main.processor.shows);
  if (!now.processorRuns) return stuck;
  if (now.radioShort) return byShow('loop');
  if (now.memory !== 'good') return byShow(now.memory === 'dead' ? 'stuck' : body.main.memory.shows);
  if (body.main.flash.damaged === 'start') return byShow('loop');
  if (body.main.flash.damaged === 'boot') return byShow('stuck');
  if (body.main.emmc.worn && body.main.emmc.shows !== 'apps') return byShow(body.main.emmc.shows);
  return { reached: 'runs', late: false, loops: false };
}

/** What the backlight does, and which fault of it the driver sees. */
export function lightOf(body: Body, bench: BenchState, driven: boolean, plugged: boolean): { light: Light; faulty: boolean; volts: Volts } {
  const { strips, driver } = body;
  const healed = strips.tapHeals && bench.tapped.has('cover');
  const open = (strips.open !== 'none' && !healed) || !plugged;
  if (!driven) return { light: 'off', faulty: open || strips.shortedShare > 0, volts: flat(0) };
  const tripped: Volts = { idle: 0, value: 0, peak: 1, steady: false };
  if (open) {
    const flash = strips.flashes && plugged;
    return { light: flash ? 'flash' : 'off', faulty: true, volts: { idle: 0, value: 0, peak: strips.limitSeen ? 1.3 : 1, steady: false } };
  }
  if (strips.shortedShare > 0) {
    const low = 1 - strips.shortedShare;
    return strips.flashes
      ? { light: 'flash', faulty: true, volts: { idle: 0, value: 0, peak: low, steady: false } }
      : { light: 'off', faulty: true, volts: { idle: 0, value: low, peak: low, steady: true } };
  }
  if (strips.failsAtFull) return { light: strips.flashes ? 'flash' : 'off', faulty: true, volts: tripped };
  if (driver.trips) return { light: strips.flashes ? 'flash' : 'off', faulty: true, volts: tripped };
  return { light: 'on', faulty: false, volts: { idle: 0, value: 1, peak: 1, steady: true } };
}

interface PictureFacts {
  readonly tconFed: boolean;
  readonly biasUp: boolean;
  readonly fromMain: boolean;
  readonly sideIn: (side: 'left' | 'right') => boolean;
  readonly clockTaped: boolean;
  readonly clockShort: boolean;
  readonly plasmaOn: boolean;
  readonly board: 'jig' | 'universal' | undefined;
}

/** What is drawn. */
export function pictureOf({ layout }: Build, body: Body, bench: BenchState, now: PictureFacts): Picture {
  const { panel, tcon, plasma } = body;
  const plasmaSet = layout.assemblies.includes('logic');
  if (plasmaSet) {
    const selfTest = bench.pressed === 'pattern' && bench.out.has('harness.picture');
    if (!now.plasmaOn || !body.main.panelSwitch || plasma.dead === 'logic') return 'none';
    if (plasma.dead !== 'none') return plasma.deadShows === 'dark' ? 'none' : plasma.deadShows;
    if (!selfTest && !now.fromMain)
      return body.contacts['harness.picture']?.shows === 'lines' && !bench.out.has('harness.picture') ? 'lines' : 'none';
    if (!selfTest && body.setting === 'turned') return 'turned';
    if (plasma.bar !== 'none') return selfTest ? 'partial' : plasma.bar === 'rows' ? 'band' : 'bar';
  } else {
    const picture = body.contacts['harness.picture'];
    const looseLines = picture?.state === 'open' && picture.shows === 'lines' && !bench.out.has('harness.picture') && !now.fromMain;
    if (looseLines) return 'lines';
    if (!now.tconFed || !now.biasUp || !now.fromMain || now.clockShort) return 'none';
    const jointBad = tcon.joint.bad && warmthOf(bench, 'tcon', layout.merges.tcon ?? 'tcon') < tcon.joint.heals;
    if (jointBad) return tcon.joint.shows === 'blank' ? 'none' : 'lines';
    if (!tcon.clock) return tcon.clockShows === 'blank' ? 'none' : 'lines';
    if (!tcon.data) return 'lines';
    const left = now.sideIn('left') && tcon.half !== 'left' && panel.half !== 'left';
    const right = now.sideIn('right') && tcon.half !== 'right' && panel.half !== 'right';
    if (!left && !right) return 'none';
    for (const [side, there] of [
      ['left', left],
      ['right', right],
    ] as const) {
      if (there) continue;
      const ribbon = body.contacts[`harness.panel-${side}`];
      if (ribbon?.shows === 'lines' && !bench.out.has(`harness.panel-${side}`) && tcon.half !== side) return 'lines';
      return `${side}-missing`;
    }
    if (now.clockTaped) return 'washed';
    if (body.setting === 'turned' && now.board === undefined && bench.pressed !== 'service') return 'turned';
  }
  if (panel.glass === 'cracked')
    return panel.crackShows === 'half' ? 'left-missing' : panel.crackShows === 'lines' ? 'lines' : panel.crackShows;
  if (panel.rowFilm) return 'band';
  if (panel.worn) return 'dots';
  if (panel.film !== 'none') return panel.filmHalf ? `${panel.film}-missing` : 'bar';
  if (panel.line) return bench.squeezed && panel.lineSqueeze ? 'good' : 'line';
  const bondHealed = warmthOf(bench, 'panel') >= panel.bond.heals || (bench.squeezed && panel.bond.squeezeHeals);
  if (panel.bond.loose && !bondHealed) return panel.bond.shows;
  return 'good';
}
