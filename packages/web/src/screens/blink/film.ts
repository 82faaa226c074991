/**
 * A light filmed: frames of a camera or of a video file, looked at where the light is. Times are the film's own where it has them. The
 * spot follows small movement of the picture.
 */
import { coloursOfSpot, followSpot, lightAt, type LightTrace, type Picture, type Spot, type SpotLight } from '@veglia/core';
import type { CameraProblem } from '../../camera.ts';

export type FilmProblem = CameraProblem | 'cannot-play';

export interface Film {
  /** Times in seconds and the light in the spot, as far as it was recorded. */
  readonly seconds: number[];
  readonly lights: SpotLight[];
  spot: Spot;
  stop(): void;
}

/** Pictures are looked at this wide: a spot of a few pixels stays a few pixels. */
export const filmWidth = 320;
export const spotRadius = 6;
const reach = 4;
/** The spot's surroundings are taken anew this often, seconds: slow movement adds up. */
const anewS = 1;

/** One picture at a time: `draw` puts it on the canvas, at its time in the film. */
type Look = (draw: (context: CanvasRenderingContext2D, width: number, height: number) => void, mediaTime: number) => void;

/** Follows the spot from picture to picture. `seen` is called with the film after each. */
function eye(
  shape: { width: number; height: number },
  at: Spot,
  seen: (film: Film) => void,
): { film: Film; look: Look; running: () => boolean } {
  const canvas = document.createElement('canvas');
  canvas.width = filmWidth;
  canvas.height = Math.max(1, Math.round((filmWidth * shape.height) / Math.max(1, shape.width)));
  const context = canvas.getContext('2d', { willReadFrequently: true });
  let running = true;
  let before: { picture: Picture; spot: Spot; seconds: number } | undefined;
  let began: number | undefined;
  const one: Film = {
    seconds: [],
    lights: [],
    spot: { x: at.x * canvas.width, y: at.y * canvas.height },
    stop: () => (running = false),
  };
  const look: Look = (draw, mediaTime) => {
    if (!context) return;
    draw(context, canvas.width, canvas.height);
    const picture = context.getImageData(0, 0, canvas.width, canvas.height);
    began ??= mediaTime;
    const seconds = mediaTime - began;
    if (before) {
      const moved = followSpot(before.picture, picture, before.spot, spotRadius, reach);
      one.spot = moved;
      if (seconds - before.seconds > anewS) before = { picture, spot: moved, seconds };
    } else before = { picture, spot: one.spot, seconds };
    // A film that starts over is another recording.
    if (seconds < (one.seconds.at(-1) ?? 0)) return;
    one.seconds.push(seconds);
    one.lights.push(lightAt(picture, one.spot, spotRadius));
    seen(one);
  };
  return { film: one, look, running: () => running };
}

/** Looks at every frame the video shows until stopped: a machine that is busy misses some. */
export function film(video: HTMLVideoElement, at: Spot, seen: (film: Film) => void): Film {
  const { film: one, look, running } = eye({ width: video.videoWidth, height: video.videoHeight }, at, seen);
  const frame = (_now: number, { mediaTime }: { mediaTime: number }): void => {
    if (!running()) return;
    look((context, width, height) => context.drawImage(video, 0, 0, width, height), mediaTime);
    video.requestVideoFrameCallback(frame);
  };
  video.requestVideoFrameCallback(frame);
  return one;
}

/**
 * A video file taken apart: `read` looks at every frame it holds, at its own time, however long that takes here, until the last or
 * until stopped; where the file is damaged it ends there. Undefined where this browser can't take it apart: it can still be played.
 */
export async function filmOfFile(
  file: Blob,
  at: Spot,
  seen: (film: Film) => void,
): Promise<{ film: Film; read: () => Promise<void> } | undefined> {
  // Without a secure connection browsers take no video apart.
  if (typeof VideoDecoder === 'undefined') return undefined;
  const { BlobSource, Input, MATROSKA, MP4, QTFF, VideoSampleSink, WEBM } = await import('mediabunny');
  const input = new Input({ formats: [MP4, QTFF, WEBM, MATROSKA], source: new BlobSource(file) });
  const track = await input.getPrimaryVideoTrack().catch(() => null);
  if (!track || !(await track.canDecode().catch(() => false))) {
    input.dispose();
    return undefined;
  }
  const shape = { width: await track.getDisplayWidth(), height: await track.getDisplayHeight() };
  const { film: one, look, running } = eye(shape, at, seen);
  const read = async (): Promise<void> => {
    try {
      for await (const sample of new VideoSampleSink(track).samples()) {
        if (running()) look((context, width, height) => sample.draw(context, 0, 0, width, height), sample.timestamp);
        sample.close();
        if (!running()) break;
      }
    } catch {
      // What was seen before the damage is kept.
    } finally {
      input.dispose();
    }
  };
  return { film: one, read };
}

export const filmNotes = ['too-dark', 'saturated', 'lost'] as const;
export type FilmNote = (typeof filmNotes)[number];

/** What keeps the light from being read, by what was seen so far; nothing where all is well. */
export function noteOn({ lights, spot }: Film, heightShare: number): FilmNote | undefined {
  if (spot.x < 0 || spot.y < 0 || spot.x > filmWidth || spot.y > filmWidth * heightShare) return 'lost';
  const last = lights.slice(-90);
  if (last.length < 15) return undefined;
  const levels = last.map(({ level }) => level);
  const most = levels.reduce((a, b) => Math.max(a, b), 0);
  if (last.filter(({ saturated }) => saturated > 0.9).length > last.length * 0.9) return 'saturated';
  return most < 0.004 ? 'too-dark' : undefined;
}

export function traceOf({ seconds, lights }: Film): LightTrace {
  const colours = coloursOfSpot(lights);
  return { timesS: [...seconds], levels: lights.map(({ level }) => level), colours };
}
