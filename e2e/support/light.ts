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

/** One cycle as Y4M (YUV 4:2:0, 30 frames a second) for --use-file-for-fake-video-capture, which plays it over and over. */
export function writeFilm(file: string, blink: Blink): void {
  const [width, height, fps] = [160, 120, 30];
  const { lit, lengthS } = cycleOf(blink);
  const frames = Math.round(lengthS * fps);
  const chroma = Buffer.alloc((width * height) / 2, 128);
  const parts: Buffer[] = [Buffer.from(`YUV4MPEG2 W${width} H${height} F${fps}:1 Ip A1:1 C420jpeg\n`)];
  for (let frame = 0; frame < frames; frame++) {
    const luma = Buffer.alloc(width * height);
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const lamp = (x - 80) ** 2 + (y - 60) ** 2 < 36;
        luma[y * width + x] = lamp ? (lit((frame + 0.5) / fps) ? 210 : 60) : 80 + ((x * 7 + y * 13) % 40);
      }
    }
    parts.push(Buffer.from('FRAME\n'), luma, chroma);
  }
  writeFileSync(file, Buffer.concat(parts));
}
