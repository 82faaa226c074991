/** How long somebody takes against the book. */

/** Hands-on minutes of a closed job: typed at its closing, and by the book for the same steps; who did it. */
export interface TimedJob {
  readonly by: string;
  readonly typed: number;
  readonly book: number;
}
/** Hands-on time over the book’s, and how many jobs it rests on. */
export interface Pace {
  readonly factor: number;
  readonly jobs: number;
}

/** By the book, standing for a person of whom nothing is known yet: value of ours. */
const unknownMinutes = 120;
/** A job counts as no slower and no quicker than this many times the book, beyond which something else was timed: value of ours. */
const mostFactor = 3;

/** Of one person’s closed jobs. */
export function paceOf(jobs: readonly Omit<TimedJob, 'by'>[]): Pace {
  let typed = unknownMinutes;
  let book = unknownMinutes;
  for (const one of jobs) {
    typed += Math.min(one.book * mostFactor, Math.max(one.book / mostFactor, one.typed));
    book += one.book;
  }
  return { factor: typed / book, jobs: jobs.length };
}
