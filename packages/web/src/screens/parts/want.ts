/** What a picked item, offer or typed source says of a part that a job wants. */
import type { Body } from '@veglia/core';
import { dayOf } from '../shelves/dayPlan.ts';

export type Want = Omit<Extract<Body, { kind: 'part.wanted' }>, 'kind' | 'v' | 'want' | 'assembly' | 'unproven'>;

/** YYYY-MM-DD so many days from then, by this machine's clock. */
export const dayIn = (days: number, from: Date): string => dayOf(new Date(from.getFullYear(), from.getMonth(), from.getDate() + days));
