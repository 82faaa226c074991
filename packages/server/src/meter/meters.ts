/** The meter of this server: one on the network, or the simulated one of the demo; none where neither is. */
import type { MeterReply, MeterState, SimulatedProbes } from '@veglia/contract';
import type { Meter, MeterFunction } from '@veglia/core';
import { openProbes, SimulatedMeter } from '@veglia/simulators/devices';
import { ApiError } from '../http/apiError.ts';
import { ScpiMeter } from './scpiMeter.ts';

/** An answer within so many milliseconds: a slow range of a bench meter takes two seconds (value of ours). */
const usualTimeoutMs = 5000;

/** A meter, and the hand on its probes where it is simulated. */
export interface BenchMeter {
  readonly meter: Meter;
  readonly simulated?: SimulatedMeter;
}

/** `address`: host:port; without one, the demo has a simulated meter and a shop has none. Throws what the system throws. */
export async function openMeter(address: string | undefined, demo: boolean, timeoutMs = usualTimeoutMs): Promise<BenchMeter | undefined> {
  if (address !== undefined) {
    const at = address.lastIndexOf(':');
    return { meter: new ScpiMeter({ host: address.slice(0, at).replace(/^\[|\]$/g, ''), port: Number(address.slice(at + 1)), timeoutMs }) };
  }
  if (!demo) return undefined;
  const simulated = new SimulatedMeter();
  const port = await simulated.listen();
  return { meter: new ScpiMeter({ host: '127.0.0.1', port, timeoutMs }), simulated };
}

/** Whether there is a meter, and which. */
export async function meterState(bench: BenchMeter | undefined): Promise<MeterState> {
  if (!bench) return { configured: false, simulated: false, identity: null, trouble: null };
  const said = await bench.meter.identify();
  const simulated = bench.simulated !== undefined;
  if (said.kind !== 'identity') return { configured: true, simulated, identity: null, trouble: said.kind };
  return { configured: true, simulated, identity: { maker: said.maker, model: said.model }, trouble: null };
}

/** Throws not-found without a meter. */
export async function readMeter(bench: BenchMeter | undefined, what: MeterFunction, range?: number): Promise<MeterReply> {
  if (!bench) throw new ApiError('not-found');
  return bench.meter.measure(what, range);
}

/** Puts the simulated meter's probes on something. Throws not-found where it isn't simulated. */
export function touchProbes(bench: BenchMeter | undefined, { volts, ohms }: SimulatedProbes): SimulatedProbes {
  if (!bench?.simulated) throw new ApiError('not-found');
  bench.simulated.touch({ ...openProbes, 'dc-volts': volts, ohms, continuity: ohms });
  return { volts, ohms };
}

/** Lets go of the line, and of the simulated meter. */
export async function closeMeter(bench: BenchMeter | undefined): Promise<void> {
  await bench?.meter.close();
  await bench?.simulated?.close();
}
