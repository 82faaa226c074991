/**
 * A code of groups that isn't ours: Morse figures by ITU-R M.1677-1 (2009), Part I, 1.1 and 2: a dash is as long as three dots, elements
 * of one sign are a dot apart, signs of one word three, words seven. A figure n up to five is n dots and 5 - n dashes; above, n - 5
 * dashes first. Sent as a word of one figure again and again, long and short parted, it must read as those two counts.
 */
import { describe, expect, test } from '@jest/globals';
import { readTrace, type LightTrace } from './index.ts';

const dotS = 0.24;
const figures = ['.----', '..---', '...--', '....-', '.....', '-....', '--...', '---..', '----.', '-----'];

function sent(word: readonly string[], times: number, fps: number): LightTrace {
  const flashes: [number, number][] = [];
  let t = 1;
  for (let k = 0; k < times; k++) {
    for (const sign of word) {
      for (const element of sign) {
        const length = element === '.' ? dotS : 3 * dotS;
        flashes.push([t, t + length]);
        t += length + dotS;
      }
      t += 2 * dotS;
    }
    t += 4 * dotS;
  }
  const timesS = Array.from({ length: Math.floor((t + 0.5) * fps) }, (_, i) => i / fps);
  return { timesS, levels: timesS.map((s) => (flashes.some(([from, to]) => s >= from && s < to) ? 9 : 2) + 0.3 * Math.sin(s * 91)) };
}

const runs = (sign: string): number[] => [...sign.matchAll(/\.+|-+/g)].map(([run]) => run.length);

describe('Morse figures', () => {
  test.each(figures.map((sign, index): [number, string] => [(index + 1) % 10, sign]))('%i is %s', (_, sign) => {
    const result = readTrace(sent([sign], 5, 30));
    expect('refused' in result ? undefined : result.reading).toMatchObject({ groups: runs(sign), sure: true });
  });

  test('two signs of one word are two groups: "HI" is four dots, two dots', () => {
    const result = readTrace(sent(['....', '..'], 5, 30));
    expect('refused' in result ? undefined : result.reading).toMatchObject({ groups: [4, 2], sure: true });
  });
});
