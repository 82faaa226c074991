/** Recordings of lights, read off the main thread. Plain data only. */
import { readTrace, type LightTrace, type TraceReading } from '@veglia/core';
import { expose } from 'comlink';

const reader = {
  read: (trace: LightTrace): TraceReading => readTrace(trace),
};
export type LightReader = typeof reader;

expose(reader);
