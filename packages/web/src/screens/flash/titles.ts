/** Names of steps on a memory. */
import type { CopyForecast, FlashAim, FlashDid, FlashSession } from '@veglia/core';

/** As vue-i18n gives it. */
export type Translate = (key: string, values?: Record<string, string | number>) => string;

/** "Read and save, boot area 1". */
export function stepTitle(t: Translate, { step, area, of }: FlashAim): string {
  const key = of !== undefined && of !== 'this' ? `flash.step.${step}-${of}` : `flash.step.${step}`;
  return area === undefined || area === 'whole' ? t(key) : `${t(key)}, ${t(`flash.area.${area}`)}`;
}

/** The beginning of a hash: enough to tell two dumps of a shop apart by eye. */
export const shortHash = (sha256: string): string => sha256.slice(0, 12);

/** "60–90 min", "4 min", "20–40 s". */
export function minutesRange({ least, most }: CopyForecast): string {
  const seconds = most < 1.5;
  const [from, to] = [least, most].map((minutes) => (seconds ? Math.max(1, Math.round(minutes * 60)) : Math.max(1, Math.round(minutes))));
  return `${from === to ? String(to) : `${from}–${to}`} ${seconds ? 's' : 'min'}`;
}

/** Name of the timer of a copy: it ends with the step it was for. */
export const copyWait = (t: Translate, { opened }: FlashSession, step: FlashDid['step']): string =>
  t('flash.copy.waits', { name: opened.name, step: t(`flash.step.${step}`) });

/** "1920 x 1080"; undefined where it is something else. */
export function resolutionOf(text: string): [number, number] | undefined {
  const [, width, height] = /^\s*(\d{2,5})\s*[x×*]\s*(\d{2,5})\s*$/i.exec(text) ?? [];
  const [w, h] = [Number(width), Number(height)];
  return w > 0 && h > 0 && w <= 20_000 && h <= 20_000 ? [w, h] : undefined;
}
