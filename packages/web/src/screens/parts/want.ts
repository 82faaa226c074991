/** What a picked item, offer or typed source says of a part that a job wants. */
import type { Body } from '@veglia/core';

export type Want = Omit<Extract<Body, { kind: 'part.wanted' }>, 'kind' | 'v' | 'want' | 'assembly' | 'unproven'>;

const twoDigits = (n: number): string => String(n).padStart(2, '0');
/** YYYY-MM-DD so many days from then, by this machine's clock. */
export function dayIn(days: number, from: Date): string {
  const day = new Date(from.getFullYear(), from.getMonth(), from.getDate() + days);
  return `${day.getFullYear()}-${twoDigits(day.getMonth() + 1)}-${twoDigits(day.getDate())}`;
}
