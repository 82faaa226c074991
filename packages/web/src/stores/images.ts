/** Dumps and images on their way to the server, in pieces: what a broken line cost is sent again, and nothing else. */
import type { Image, ImageFacts } from '@veglia/contract';
import { DumpReader, type DumpFacts } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { api, NotReached, type Reply } from '../api.ts';

/** Bytes of one request. */
const pieceBytes = 4 * 2 ** 20;
/** Tried again so often in a row before it is left to a person. */
const mostTries = 5;

/** How a dump is sent; the defaults are the browser's. */
export interface Sending {
  readonly by: string;
  readonly facts: ImageFacts;
  readonly progress?: (sent: number) => void;
  readonly signal?: AbortSignal;
  readonly pause?: (milliseconds: number) => Promise<void>;
}
/** A dump that is stored, with what its bytes say. */
export interface SentDump {
  readonly image: Image;
  readonly dump: DumpFacts;
}

const usualPause = (milliseconds: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Runs a request until it is answered; throws NotReached when it never was. */
async function insist<T>(ask: () => Promise<T>, pause: (milliseconds: number) => Promise<void>): Promise<T> {
  for (let tried = 1; ; tried += 1) {
    try {
      return await ask();
    } catch (error) {
      if (!(error instanceof NotReached) || tried === mostTries) throw error;
      await pause(error.afterMs ?? 1000 * tried);
    }
  }
}

/** Sends a dump and makes it an image. A refusal is a value; throws NotReached, and AbortError where it is broken off. */
export async function sendDump(file: Blob, { by, facts, progress, signal, pause = usualPause }: Sending): Promise<Reply<SentDump>> {
  const id = uuidv7();
  const reader = new DumpReader();
  for (let at = 0; at < file.size;) {
    signal?.throwIfAborted();
    const piece = file.slice(at, at + pieceBytes);
    reader.add(new Uint8Array(await piece.arrayBuffer()));
    const reply = await insist(async () => {
      // What was cut off may have arrived all the same.
      const received = await api.imageReceived(id);
      if (!received.ok) return received;
      return received.value > at ? api.sendImage(id, received.value, piece.slice(received.value - at)) : api.sendImage(id, at, piece);
    }, pause);
    if (!reply.ok) return reply;
    at += piece.size;
    progress?.(at);
  }
  const dump = reader.end();
  const published = await insist(() => api.publishImage(id, { by, size: file.size, sha256: dump.sha256, facts }), pause);
  return published.ok ? { ok: true, value: { image: published.value, dump } } : published;
}
