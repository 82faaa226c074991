/** Lights for the reader: a trace as CSV, and a film as a fake camera plays it. Times by plain arithmetic. */
import { writeFileSync } from 'node:fs';

export interface Blink {
  readonly groups: readonly number[];
  readonly onS: number;
  readonly offS: number;
  readonly partS: number;
  readonly pauseS: number;
}

/** Whether it is lit at each moment of one cycle, and how long a cycle is. */
export function cycleOf({ groups, onS, offS, partS, pauseS }: Blink): { lit: (s: number) => boolean; lengthS: number } {
  const flashes: [number, number][] = [];
  let t = pauseS / 2;
  groups.forEach((count, group) => {
    for (let k = 0; k < count; k++) {
      flashes.push([t, t + onS]);
      t += onS + (k < count - 1 ? offS : group < groups.length - 1 ? partS : pauseS / 2);
    }
  });
  const lengthS = t;
  return { lengthS, lit: (s) => flashes.some(([from, to]) => s % lengthS >= from && s % lengthS < to) };
}

export function traceCsv(blink: Blink, cycles: number, fps = 30): string {
  const { lit, lengthS } = cycleOf(blink);
  const rows = Array.from({ length: Math.floor(cycles * lengthS * fps) }, (_, i) => {
    const s = i / fps;
    return `${s.toFixed(4)},${(40 + (lit(s) ? 25 : 0) + 2 * Math.sin(i * 1.9)).toFixed(2)}`;
  });
  return `time_s,level\n${rows.join('\n')}\n`;
}

/** Grey frames as Y4M (YUV 4:2:0, 30 a second) for --use-file-for-fake-video-capture, which plays it over and over. */
function writeY4m(
  file: string,
  width: number,
  height: number,
  frames: number,
  grey: (x: number, y: number, frame: number) => number,
): void {
  const chroma = Buffer.alloc((width * height) / 2, 128);
  const parts: Buffer[] = [Buffer.from(`YUV4MPEG2 W${width} H${height} F${fps}:1 Ip A1:1 C420jpeg\n`)];
  for (let frame = 0; frame < frames; frame++) {
    const luma = Buffer.alloc(width * height);
    for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) luma[y * width + x] = grey(x, y, frame);
    parts.push(Buffer.from('FRAME\n'), luma, chroma);
  }
  writeFileSync(file, Buffer.concat(parts));
}
const fps = 30;

/** One cycle of a light. */
export function writeFilm(file: string, blink: Blink): void {
  const { lit, lengthS } = cycleOf(blink);
  writeY4m(file, 160, 120, Math.round(lengthS * fps), (x, y, frame) => {
    const lamp = (x - 80) ** 2 + (y - 60) ** 2 < 36;
    return lamp ? (lit((frame + 0.5) / fps) ? 210 : 60) : 80 + ((x * 7 + y * 13) % 40);
  });
}

/** A grey picture (binary PGM, 8 bits) held slantwise into the camera, unevenly lit. */
export function writePictureFilm(file: string, pgm: Buffer): void {
  const head = /^P5\s+(\d+)\s+(\d+)\s+255\s/.exec(pgm.subarray(0, 64).toString('latin1'));
  if (!head) throw new RangeError('not a binary PGM of 8 bits');
  const [pictureWidth, pictureHeight] = [Number(head[1]), Number(head[2])];
  const pixels = pgm.subarray(head[0].length);
  const [width, height, slant] = [640, 480, 0.15];
  const zoom = 0.85 * Math.min(width / pictureWidth, height / pictureHeight);
  writeY4m(file, width, height, 10, (x, y) => {
    const [dx, dy] = [(x - width / 2) / zoom, (y - height / 2) / zoom];
    const column = Math.round(dx * Math.cos(slant) + dy * Math.sin(slant) + pictureWidth / 2);
    const row = Math.round(dy * Math.cos(slant) - dx * Math.sin(slant) + pictureHeight / 2);
    const on = column >= 0 && row >= 0 && column < pictureWidth && row < pictureHeight;
    return Math.round(40 + (on ? (pixels[row * pictureWidth + column] ?? 0) * 0.6 : 70) + x / 20);
  });
}
