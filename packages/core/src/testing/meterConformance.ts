/** What every meter has to do, whatever it is connected by: the same tests for all of them. */
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { meterFunctions, type Meter, type MeterFunction } from '../meter/index.ts';

/** A meter under test, and a hand on what is at its probes and on its cable. */
export interface MeterRig {
  readonly meter: Meter;
  /** What the probes are on while it is set to that; in volts or ohms. */
  show(what: MeterFunction, value: number | 'over-range'): void;
  /** It answers nothing from now on. */
  silence(): void;
  /** It answers with what is no reading. */
  garble(): void;
  /** The cable comes out; put back by the next `show`. */
  cut(): void;
  end(): Promise<void>;
}

const values: Readonly<Record<MeterFunction, number>> = {
  'dc-volts': -12.345,
  'ac-volts': 229.8,
  ohms: 4700,
  diode: 0.612,
  continuity: 0.4,
};

/** Registers the tests. */
export function meterConformance(name: string, open: () => Promise<MeterRig>): void {
  describe(`a meter: ${name}`, () => {
    let rig: MeterRig;
    beforeEach(async () => {
      rig = await open();
    });
    afterEach(() => rig.end());

    test('says what it is', async () => {
      rig.show('dc-volts', 0);
      const identity = await rig.meter.identify();
      expect(identity).toEqual({ kind: 'identity', maker: expect.any(String), model: expect.stringMatching(/./) });
    });
    test.each(meterFunctions)('reads %s', async (what) => {
      rig.show(what, values[what]);
      const reading = await rig.meter.measure(what);
      expect(reading).toEqual({ kind: 'value', function: what, value: expect.closeTo(values[what], 6) });
    });
    test('more than it can show is a reading, and no error', async () => {
      rig.show('ohms', 'over-range');
      expect(await rig.meter.measure('ohms')).toEqual({ kind: 'over-range', function: 'ohms' });
    });
    test('no answer is told, and the next reading is the next and not the late one', async () => {
      rig.show('dc-volts', 5);
      await rig.meter.measure('dc-volts');
      rig.silence();
      expect(await rig.meter.measure('dc-volts')).toEqual({ kind: 'timed-out', detail: expect.any(String) });
      rig.show('dc-volts', 3.3);
      expect(await rig.meter.measure('dc-volts')).toEqual({ kind: 'value', function: 'dc-volts', value: expect.closeTo(3.3, 6) });
    });
    test('nonsense is told with what came', async () => {
      rig.garble();
      expect(await rig.meter.measure('dc-volts')).toEqual({ kind: 'not-understood', detail: expect.stringMatching(/./) });
    });
    test('a broken line is told, and a mended one is used again', async () => {
      rig.show('dc-volts', 5);
      await rig.meter.measure('dc-volts');
      rig.cut();
      expect(['broken-off', 'not-reached']).toContain((await rig.meter.measure('dc-volts')).kind);
      rig.show('dc-volts', 3.3);
      expect(await rig.meter.measure('dc-volts')).toEqual({ kind: 'value', function: 'dc-volts', value: expect.closeTo(3.3, 6) });
    });
    test('two questions at once are answered one after the other', async () => {
      rig.show('dc-volts', 5);
      const both = await Promise.all([rig.meter.measure('dc-volts'), rig.meter.measure('dc-volts')]);
      expect(both.map(({ kind }) => kind)).toEqual(['value', 'value']);
    });
  });
}
