/** Past jobs that tell something of this one: same family, same symptom, same code. */

/** What likeness is told from. */
export interface PastJob {
  readonly family?: string | undefined;
  readonly layout?: string | undefined;
  readonly symptoms: readonly string[];
  /** Blink code as read, groups joined by hyphens. */
  readonly code?: string | undefined;
}

/** A past job, and what is the same. */
export interface SimilarJob<T extends PastJob> {
  readonly job: T;
  readonly same: readonly ('family' | 'layout' | 'symptom' | 'code')[];
}

// What likeness is worth, values of ours: a code of the same family says most, a layout alone too little to be shown.
const worth = { family: 3, code: 4, symptom: 2, layout: 1 } as const;
const leastWorth = 3;

/** Best first; ties keep the order given (newest first is the caller's business). A code counts only within its family. */
export function similarJobs<T extends PastJob>(now: PastJob, past: readonly T[], most = 5): SimilarJob<T>[] {
  return past
    .map((job): { job: T; same: SimilarJob<T>['same']; score: number } => {
      const family = now.family !== undefined && job.family === now.family;
      const same = [
        ...(family ? (['family'] as const) : []),
        ...(!family && now.layout !== undefined && job.layout === now.layout ? (['layout'] as const) : []),
        ...(job.symptoms.some((id) => now.symptoms.includes(id)) ? (['symptom'] as const) : []),
        ...(family && now.code !== undefined && job.code === now.code ? (['code'] as const) : []),
      ];
      return { job, same, score: same.reduce((sum, one) => sum + worth[one], 0) };
    })
    .filter(({ score, same }) => score >= leastWorth && same.some((one) => one === 'symptom' || one === 'code'))
    .sort((a, b) => b.score - a.score)
    .slice(0, most)
    .map(({ job, same }) => ({ job, same }));
}
