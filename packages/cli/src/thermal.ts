/** `veglia thermal`: temperature pictures (CSV) around power-on, compared as the instrument in the app does. */
import { findingSentence } from '@veglia/contract';
import { compareFrames, InputRefused, parseFrame, thermalReport, type TimedFrame } from '@veglia/core';
import { readText } from './blink.ts';

/** `pictures`: SECONDS=FILE each, the first from before power-on. Throws InputRefused on what can't be read or compared. */
export async function thermal(pictures: readonly string[]): Promise<object> {
  const frames: TimedFrame[] = [];
  for (const text of pictures) {
    const found = /^(-?\d+(?:\.\d+)?)=(.+)$/.exec(text);
    if (!found?.[1] || !found[2]) throw new InputRefused([{ code: 'schema', where: 'picture', value: text, expected: 'SECONDS=FILE' }]);
    frames.push({ ...parseFrame(await readText(found[2]), found[2]), seconds: Number(found[1]) });
  }
  try {
    const warmth = compareFrames(frames);
    const { figures, findings } = thermalReport(warmth);
    return {
      figures,
      moved: warmth.moved,
      spots: warmth.spots,
      findings: findings.map((finding) => ({ ...finding, sentence: findingSentence(finding) })),
    };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    throw new InputRefused([{ code: 'schema', where: 'pictures', value: pictures.join(' '), expected: error.message }]);
  }
}
