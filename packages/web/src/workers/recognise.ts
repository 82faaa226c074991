/**
 * Text from a picture, off the main thread and without leaving this machine: worker, engine and language data ship with the app under
 * /recognise and are fetched when the first picture is read.
 */
import type { Worker } from 'tesseract.js';

let made: Promise<Worker> | undefined;

async function recogniser(): Promise<Worker> {
  const { createWorker, OEM } = await import('tesseract.js');
  return createWorker('eng', OEM.LSTM_ONLY, {
    workerPath: '/recognise/worker.min.js',
    corePath: '/recognise',
    langPath: '/recognise',
    workerBlobURL: false,
    cacheMethod: 'none',
  });
}

/** The text, line by line. Throws where the engine can't be had. */
export async function textOfPicture(picture: Blob): Promise<string> {
  made ??= recogniser();
  try {
    const { data } = await (await made).recognize(picture);
    return data.text;
  } catch (error) {
    made = undefined;
    throw error;
  }
}
