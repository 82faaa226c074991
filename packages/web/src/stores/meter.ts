/** The meter at the bench: the server's, or a hand meter on this machine's serial port; read into the field that has the focus. */
import type { MeterState } from '@veglia/contract';
import { LineMeter, type LineSource, type Meter, type MeterFunction, type MeterReading, type MeterTrouble } from '@veglia/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { api, NotReached } from '../api.ts';
import { practiceJob } from './practice.ts';

/** A field that a reading can go into. */
export interface MeterTarget {
  /** The point that is read, where the field knows it. */
  readonly at?: string | undefined;
  readonly what: MeterFunction;
  put(text: string): void;
}
/** As `read` tells: nothing where the reading went into the field. */
export type MeterSaid = { readonly kind: 'no-target' } | { readonly kind: 'over-volts' } | MeterTrouble;

/** A hand meter sends a line a second or so; this long without one, and nothing comes (value of ours). */
const handTimeoutMs = 5000;
const later = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** What of the browser's serial ports is used here. */
interface TextPort {
  open(options: { baudRate: number }): Promise<void>;
  close(): Promise<void>;
  readonly readable: ReadableStream<Uint8Array> | null;
}
interface Ports {
  requestPort(): Promise<TextPort>;
}
const ports = (): Ports | undefined => (navigator as { serial?: Ports }).serial;

/** Lines of a port; of those that came meanwhile only the newest counts. */
export function linesOf(name: string, stream: ReadableStream<Uint8Array>): LineSource {
  const reader = stream.getReader();
  const decoder = new TextDecoder('latin1');
  let rest = '';
  return {
    name,
    async next() {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) return undefined;
        const lines = (rest + decoder.decode(value)).split(/[\r\n]+/);
        rest = lines.pop() ?? '';
        const newest = lines.findLast((line) => line.trim() !== '');
        if (newest !== undefined) return newest;
        if (rest.length > 400) rest = '';
      }
    },
    async close() {
      await reader.cancel();
    },
  };
}

/** As a field takes it: seven digits are more than any bench meter has. */
export const textOfReading = (reading: MeterReading): string =>
  reading.kind === 'over-range' ? 'OL' : String(Number(reading.value.toPrecision(7)));

export const useMeter = defineStore('meter', () => {
  const state = shallowRef<MeterState>();
  const hand = shallowRef<Meter>();
  const busy = ref(false);
  const said = shallowRef<MeterSaid>();
  const target = shallowRef<MeterTarget>();

  async function load(): Promise<void> {
    try {
      const reply = await api.meter();
      if (reply.ok) state.value = reply.value;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  }
  async function ask(what: MeterFunction): Promise<MeterReading | MeterTrouble> {
    if (hand.value) return hand.value.measure(what);
    try {
      const reply = await api.readMeter({ function: what });
      return reply.ok ? reply.value : { kind: 'not-reached', detail: reply.problem.title };
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      return { kind: 'not-reached', detail: '' };
    }
  }
  /** The simulated one is wired to the practice job’s set, and to no other. */
  const there = computed(
    () => hand.value !== undefined || (state.value?.configured === true && (!state.value.simulated || practiceJob.value !== '')),
  );
  /** Into the field that had the focus last. */
  async function read(): Promise<void> {
    const into = target.value;
    if (!into) {
      said.value = { kind: 'no-target' };
      return;
    }
    if (busy.value) return;
    busy.value = true;
    said.value = undefined;
    try {
      const reading = await ask(into.what);
      if (reading.kind === 'value') into.put(textOfReading(reading));
      else if (reading.kind !== 'over-range') said.value = reading;
      else if (into.what === 'ohms') into.put(textOfReading(reading));
      else said.value = { kind: 'over-volts' };
    } finally {
      busy.value = false;
    }
  }
  /** A person chooses the port; the browser asks for it. */
  async function connectHand(): Promise<void> {
    const port = await ports()?.requestPort();
    if (!port) return;
    await port.open({ baudRate: 9600 });
    if (port.readable) hand.value = new LineMeter(linesOf('serial', port.readable), handTimeoutMs, later);
  }
  return {
    state,
    hand,
    busy,
    said,
    target,
    there,
    load,
    ask,
    read,
    connectHand,
    maySerial: (): boolean => ports() !== undefined,
  };
});
