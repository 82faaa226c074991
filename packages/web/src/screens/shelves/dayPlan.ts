/** The sets on the shelves as the planner reads them. */
import type { JobCard } from '@veglia/contract';
import { minutesUntil, type PlannedSet } from '@veglia/core';

const twoDigits = (n: number): string => String(n).padStart(2, '0');
/** YYYY-MM-DD by this machine's clock. */
export const dayOf = (at: Date): string => `${at.getFullYear()}-${twoDigits(at.getMonth() + 1)}-${twoDigits(at.getDate())}`;

/** Minutes until the shop's end of that day; undefined without a promise. */
export function dueIn({ promisedOn }: Pick<JobCard, 'promisedOn'>, now: Date): number | undefined {
  return promisedOn === null ? undefined : minutesUntil(promisedOn, dayOf(now), now.getHours() * 60 + now.getMinutes());
}

/** Whoever waits for the customer, is closed, or has nothing known to be done is not planned. */
export function plannedSets(cards: readonly JobCard[], now: Date): PlannedSet[] {
  return cards
    .filter(({ waitsFor, ahead }) => (waitsFor === 'hands' || waitsFor === 'timer') && ahead.length > 0)
    .map((card) => ({
      id: card.jobId,
      readyIn: Math.max(0, ...card.waits.map(({ endsAt }) => (endsAt - now.getTime()) / 60_000)),
      dueIn: dueIn(card, now),
      steps: card.ahead,
    }));
}
