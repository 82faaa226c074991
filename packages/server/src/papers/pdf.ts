/** A document definition into the bytes of a PDF, in a thread of its own with a limit of time and memory. */
import { Worker } from 'node:worker_threads';
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { ApiError } from '../http/apiError.ts';

/** A label or receipt takes some 0.1 s; its fonts are read with the first one. */
const usualLimitMs = 10_000;
const mostMemoryMb = 256;

let worker: Worker | undefined;
/** One paper at a time: each waits for the one before it, whatever became of that. */
let last: Promise<unknown> = Promise.resolve();

function start(): Worker {
  const made = new Worker(new URL('./pdf.worker.mjs', import.meta.url), {
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: mostMemoryMb },
  });
  made.unref();
  return made;
}

function make(definition: TDocumentDefinitions, limitMs: number): Promise<Buffer> {
  const thread = (worker ??= start());
  return new Promise((resolve, reject) => {
    const done = (finish: () => void, keep: boolean): void => {
      clearTimeout(timer);
      thread.off('message', heard).off('error', failed);
      if (!keep) {
        worker = undefined;
        // Nobody listens to it any more: what it still throws must not end the process.
        thread.on('error', () => undefined);
        void thread.terminate();
      }
      finish();
    };
    const heard = (reply: { bytes: Uint8Array } | { failed: string }): void =>
      done(() => ('bytes' in reply ? resolve(Buffer.from(reply.bytes)) : reject(new Error(reply.failed))), true);
    // Out of memory ends the thread by an error of its own.
    const failed = (error: Error & { code?: string }): void =>
      done(() => reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new ApiError('paper-too-long') : error), false);
    const timer = setTimeout(() => done(() => reject(new ApiError('paper-too-long')), false), limitMs);
    thread.on('message', heard).on('error', failed);
    thread.postMessage(definition);
  });
}

/** Throws paper-too-long (422) where it isn't made within `limitMs` milliseconds. */
export function pdfOf(definition: TDocumentDefinitions, limitMs = usualLimitMs): Promise<Buffer> {
  const made = last.then(() => make(definition, limitMs));
  last = made.catch(() => undefined);
  return made;
}
