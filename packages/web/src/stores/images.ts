/** Dumps and images on their way to the server, in pieces: what a broken line cost is sent again, and nothing else. */
import type { Image, ImageFacts } from '@veglia/contract';
import { DumpReader, type DumpFacts } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { api, NotReached, type Reply } from '../api.ts';

/** Bytes of one request. */
const pieceBytes = 4 * 2 ** 20;
/** Tried again so often in a row before it is left to a person. */
const mostTries = 5;

/** Uploads that began and did not come to their end, by the file they are of: after a reload they go on. */
export interface BegunUploads {
  get(file: string): string | undefined;
  set(file: string, id: string): void;
  delete(file: string): void;
}
const prefix = 'veglia.upload.';
const begunHere: BegunUploads = {
  get: (file) => localStorage.getItem(prefix + file) ?? undefined,
  set: (file, id) => localStorage.setItem(prefix + file, id),
  delete: (file) => localStorage.removeItem(prefix + file),
};
/** The same file chosen again; whether its bytes are the same is told by their hash in the end. */
const sameFile = (file: Blob): string | undefined =>
  file instanceof File ? [file.name, file.size, file.lastModified].join(' ') : undefined;

/** How a dump is sent; the defaults are the browser's. */
export interface Sending {
  readonly by: string;
  readonly facts: ImageFacts;
  readonly progress?: (sent: number) => void;
  readonly signal?: AbortSignal;
  readonly pause?: (milliseconds: number) => Promise<void>;
  readonly begun?: BegunUploads;
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
export async function sendDump(file: Blob, sending: Sending): Promise<Reply<SentDump>> {
  const { begun = begunHere } = sending;
  const same = sameFile(file);
  const before = same === undefined ? undefined : begun.get(same);
  const id = before ?? uuidv7();
  if (same !== undefined) begun.set(same, id);
  const reply = await sendAs(id, file, sending);
  if (same !== undefined) begun.delete(same);
  // What had arrived was of another file: the whole of this one.
  return !reply.ok && before !== undefined && reply.problem.code === 'upload-incomplete' ? sendDump(file, sending) : reply;
}

async function sendAs(id: string, file: Blob, { by, facts, progress, signal, pause = usualPause }: Sending): Promise<Reply<SentDump>> {
  const reader = new DumpReader();
  for (let at = 0; at < file.size;) {
    signal?.throwIfAborted();
    const piece = file.slice(at, at + pieceBytes);
    reader.add(new Uint8Array(await piece.arrayBuffer()));
    const reply = await insist(async () => {
      // What was cut off may have arrived all the same.
      const received = await api.imageReceived(id);
      if (!received.ok) return received;
      const here = received.value - at;
      if (here >= piece.size) return received;
      return here > 0 ? api.sendImage(id, received.value, piece.slice(here)) : api.sendImage(id, at, piece);
    }, pause);
    if (!reply.ok) return reply;
    at += piece.size;
    progress?.(at);
  }
  const dump = reader.end();
  const published = await insist(() => api.publishImage(id, { by, size: file.size, sha256: dump.sha256, facts }), pause);
  return published.ok ? { ok: true, value: { image: published.value, dump } } : published;
}
