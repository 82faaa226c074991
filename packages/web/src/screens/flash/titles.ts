/** Names of steps on a memory. */
import type { FlashAim } from '@veglia/core';

/** As vue-i18n gives it. */
export type Translate = (key: string, values?: Record<string, string | number>) => string;

/** "Read and save, boot area 1". */
export function stepTitle(t: Translate, { step, area, of }: FlashAim): string {
  const key = of !== undefined && of !== 'this' ? `flash.step.${step}-${of}` : `flash.step.${step}`;
  return area === undefined || area === 'whole' ? t(key) : `${t(key)}, ${t(`flash.area.${area}`)}`;
}

/** The beginning of a hash: enough to tell two dumps of a shop apart by eye. */
export const shortHash = (sha256: string): string => sha256.slice(0, 12);
