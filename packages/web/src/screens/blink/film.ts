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

/** Looks at every frame the video shows until stopped. `seen` hears of each. */
export function film(video: HTMLVideoElement, at: Spot, seen: (film: Film) => void): Film {
  const canvas = document.createElement('canvas');
  canvas.width = filmWidth;
  canvas.height = Math.max(1, Math.round((filmWidth * video.videoHeight) / Math.max(1, video.videoWidth)));
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
  const look = (_now: number, { mediaTime }: { mediaTime: number }): void => {
    if (!running || !context) return;
    context.drawImage(video, 0, 0, canvas.width, canvas.height);
    const picture = context.getImageData(0, 0, canvas.width, canvas.height);
    began ??= mediaTime;
    const seconds = mediaTime - began;
    if (before) {
      const moved = followSpot(before.picture, picture, before.spot, spotRadius, reach);
      one.spot = moved;
      if (seconds - before.seconds > anewS) before = { picture, spot: moved, seconds };
    } else before = { picture, spot: one.spot, seconds };
    // A film that starts over is another recording.
    if (seconds >= (one.seconds.at(-1) ?? 0)) {
      one.seconds.push(seconds);
      one.lights.push(lightAt(picture, one.spot, spotRadius));
      seen(one);
    }
    video.requestVideoFrameCallback(look);
  };
  video.requestVideoFrameCallback(look);
  return one;
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
