import type { Frame } from '@veglia/core';

/** Address of a picture of a frame, the warmest white; to be revoked. Undefined where this browser can't draw it. */
export async function greyPicture({ width, height, celsius }: Frame): Promise<string | undefined> {
  const read = celsius.filter((one) => !Number.isNaN(one));
  const [low, high] = [read.reduce((a, b) => Math.min(a, b), Infinity), read.reduce((a, b) => Math.max(a, b), -Infinity)];
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext('2d');
  if (!context || read.length === 0) return undefined;
  const image = context.createImageData(width, height);
  for (const [at, one] of celsius.entries()) {
    const grey = Number.isNaN(one) ? 0 : (255 * (one - low)) / Math.max(high - low, 0.1);
    image.data.set([grey, grey, grey, 255], at * 4);
  }
  context.putImageData(image, 0, 0);
  return URL.createObjectURL(await canvas.convertToBlob());
}
