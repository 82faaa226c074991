/** `veglia thermal`: temperature pictures (CSV, or PNG with a colour scale) around power-on, compared as the instrument in the app does. */
import { readFile } from 'node:fs/promises';
import { findingSentence } from '@veglia/contract';
import {
  compareFrames,
  frameFromPicture,
  InputRefused,
  parseFrame,
  thermalReport,
  type Frame,
  type Share,
  type TimedFrame,
} from '@veglia/core';
import { PNG } from 'pngjs';
import { readText } from './blink.ts';

const refused = (where: string, value: string, expected: string): InputRefused =>
  new InputRefused([{ code: 'schema', where, value, expected }]);

/** "0.95,0.9,0.95,0.1": places as shares, two numbers each. Throws InputRefused. */
function sharesIn(text: string, where: string): [Share, Share] {
  const [ax, ay, bx, by, ...more] = text.split(',').map((one) => (one.trim() === '' ? Number.NaN : Number(one)));
  const isShare = (one: number | undefined): one is number => one !== undefined && one >= 0 && one <= 1;
  if (!isShare(ax) || !isShare(ay) || !isShare(bx) || !isShare(by) || more.length > 0) throw refused(where, text, 'X,Y,X,Y from 0 to 1');
  return [
    [ax, ay],
    [bx, by],
  ];
}
function pictureIn(data: Buffer, file: string): PNG {
  try {
    return PNG.sync.read(data);
  } catch {
    throw refused('picture', file, 'a PNG picture');
  }
}

/**
 * `typed`: SECONDS=FILE each, the first from before power-on; SECONDS@LOW:HIGH=FILE for a PNG with its scale from LOW to HIGH °C, whose cold and hot end are at
 * scale=X,Y,X,Y; area=X,Y,X,Y for two corners. Throws InputRefused on what can't be read or compared.
 */
export async function thermal(typed: readonly string[]): Promise<object> {
  const own = (name: string): string | undefined => typed.find((one) => one.startsWith(`${name}=`))?.slice(name.length + 1);
  const pictures = typed.filter((one) => !/^(scale|area)=/.test(one));
  const [scale, area] = [own('scale'), own('area')];
  const ends = scale === undefined ? undefined : sharesIn(scale, 'scale');
  const frames: TimedFrame[] = [];
  try {
    for (const text of pictures) {
      const found = /^(-?\d+(?:\.\d+)?)(?:@(-?\d+(?:\.\d+)?):(-?\d+(?:\.\d+)?))?=(.+)$/.exec(text);
      if (!found?.[1] || !found[4]) throw refused('picture', text, 'SECONDS=FILE or SECONDS@LOW:HIGH=FILE');
      const file = found[4];
      let frame: Frame;
      if (found[2] === undefined) frame = parseFrame(await readText(file), file);
      else {
        if (!ends) throw refused('scale', '', 'scale=X,Y,X,Y: its cold end, then its hot end');
        const celsius = [Number(found[2]), Number(found[3])] as const;
        const { width, height, data } = pictureIn(await readFile(file), file);
        frame = frameFromPicture(
          { width, height, rgba: data },
          { cold: ends[0], hot: ends[1], celsius },
          area === undefined ? undefined : sharesIn(area, 'area'),
        );
      }
      frames.push({ ...frame, seconds: Number(found[1]) });
    }
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
    throw refused('pictures', pictures.join(' '), error.message);
  }
}
