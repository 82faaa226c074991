/** The meter: the real adapter against a real TCP server, the same tests as every meter has, and its routes. */
import { createServer, type AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { meterConformance, type MeterRig } from '@veglia/core/testing/meter';
import { openProbes, SimulatedMeter } from '@veglia/simulators/devices';
import { createApp } from '../src/app.ts';
import { closeMeter, openMeter, type BenchMeter } from '../src/meter/meters.ts';
import { ScpiMeter } from '../src/meter/scpiMeter.ts';
import { pino } from 'pino';
import { ask, openTestApp, testAddress, testHosts, type TestApp } from './support/testApp.ts';

/** An answer from this machine takes a millisecond; a busy one is given more. */
const timeoutMs = 250;

async function rigOnTcp(): Promise<MeterRig> {
  let device = new SimulatedMeter();
  const port = await device.listen();
  const meter = new ScpiMeter({ host: '127.0.0.1', port, timeoutMs });
  let down: Promise<void> | undefined;
  let shown: Parameters<SimulatedMeter['touch']>[0] = {};
  const apply = (): void => {
    device.mode = 'answering';
    device.touch(shown);
  };
  // The cable back in: the same address again, before the next question.
  const again: MeterRig['meter'] = {
    identify: async () => {
      await back();
      return meter.identify();
    },
    measure: async (what, range) => {
      await back();
      return meter.measure(what, range);
    },
    close: () => meter.close(),
  };
  let wanted = true;
  const back = async (): Promise<void> => {
    if (down === undefined) return;
    await down;
    if (!wanted) return;
    down = undefined;
    device = new SimulatedMeter();
    await device.listen(port);
    apply();
  };
  return {
    meter: again,
    show(what, value) {
      shown = { [what]: value === 'over-range' ? null : value };
      wanted = true;
      if (down === undefined) apply();
    },
    silence: () => (device.mode = 'silent'),
    garble: () => (device.mode = 'garbled'),
    cut() {
      wanted = false;
      down = device.close();
    },
    async end() {
      await meter.close();
      await (down ?? device.close());
    },
  };
}
meterConformance('SCPI over TCP', rigOnTcp);

describe('a meter that misbehaves', () => {
  test('a line without an end is given up, and no memory filled', async () => {
    const flood = createServer((socket) => {
      socket.on('error', () => undefined);
      socket.on('data', () => socket.write('1'.repeat(100_000)));
    });
    await new Promise<void>((resolve) => flood.listen(0, '127.0.0.1', resolve));
    const meter = new ScpiMeter({ host: '127.0.0.1', port: (flood.address() as AddressInfo).port, timeoutMs });
    const said = await meter.measure('dc-volts');
    expect(said).toEqual({ kind: 'not-understood', detail: '1'.repeat(80) });
    await meter.close();
    await new Promise((resolve) => flood.close(resolve));
  });
  test('nobody listens', async () => {
    const device = new SimulatedMeter();
    const port = await device.listen();
    await device.close();
    const meter = new ScpiMeter({ host: '127.0.0.1', port, timeoutMs });
    expect(await meter.measure('ohms')).toEqual({ kind: 'not-reached', detail: 'ECONNREFUSED' });
  });
  test('a range is asked for, and more than it shows is over-range', async () => {
    const device = new SimulatedMeter();
    const port = await device.listen();
    device.touch({ ...openProbes, ohms: 4700 });
    const meter = new ScpiMeter({ host: '127.0.0.1', port, timeoutMs });
    expect(await meter.measure('ohms', 1000)).toEqual({ kind: 'over-range', function: 'ohms' });
    expect(device.asked).toEqual(['MEAS:RES? 1000']);
    await meter.close();
    await device.close();
  });
});

describe('the routes', () => {
  let app: TestApp;
  let bench: BenchMeter | undefined;
  beforeAll(async () => {
    app = await openTestApp();
    bench = await openMeter(undefined, true, timeoutMs);
  });
  afterAll(async () => {
    await closeMeter(bench);
    await app.close();
  });
  const withMeter = () =>
    createApp({
      store: app.store,
      door: app.door,
      log: pino({ level: 'silent' }),
      hosts: testHosts,
      ownAddress: () => testAddress,
      meter: bench,
    });

  test('a shop without a meter is told so', async () => {
    expect((await ask(app.app).get('/api/meter')).body).toEqual({ configured: false, simulated: false, identity: null, trouble: null });
    expect((await ask(app.app).post('/api/meter/readings').send({ function: 'ohms' })).status).toBe(404);
    expect((await ask(app.app).put('/api/meter/simulated').send({ volts: 1, ohms: null })).status).toBe(404);
  });
  test('the demo’s meter reads what its probes are on', async () => {
    const own = ask(withMeter());
    expect((await own.get('/api/meter')).body).toMatchObject({ configured: true, simulated: true, identity: { model: 'Simulated meter' } });
    await own.put('/api/meter/simulated').send({ volts: 5.18, ohms: null });
    expect((await own.post('/api/meter/readings').send({ function: 'dc-volts' })).body).toEqual({
      kind: 'value',
      function: 'dc-volts',
      value: 5.18,
    });
    expect((await own.post('/api/meter/readings').send({ function: 'ohms' })).body).toEqual({ kind: 'over-range', function: 'ohms' });
  });
  test.each([[{ function: 'amperes' }], [{ function: 'ohms', range: -1 }], [{}]])('%j is refused', async (body) => {
    expect((await ask(withMeter()).post('/api/meter/readings').send(body)).status).toBe(400);
  });
  test('an address of a meter goes to it, and is not asked before', async () => {
    const own = await openMeter('[::1]:5025', true);
    expect(own?.simulated).toBeUndefined();
    await closeMeter(own);
  });
});
