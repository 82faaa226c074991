/** Which reply refuses what was sent, and which only says that the server is in trouble or isn't ours to talk to. */
import type { ErrorCode, ProblemDocument } from '@veglia/contract';
import type { Attempt } from './sync.ts';

/** Refusals that are about what was sent. All others (another host, another site, a route that isn't there) are no verdict on it. */
const aboutWhatWasSent = new Set<ErrorCode>([
  'bad-request',
  'not-json',
  'unknown-person',
  'not-allowed',
  'unknown-job',
  'unknown-pack',
  'unknown-counts',
  'unknown-customer',
  'entry-conflict',
  'version-conflict',
  'not-checked',
  'not-put-back',
  'too-large',
  'not-a-photo',
  'wrong-media-type',
]);

/** Statuses by which a server, or something between, says: not now. */
export const isNotNow = (status: number): boolean => status >= 500 || status === 408 || status === 425 || status === 429;

/** Seconds or a date; undefined where it is neither. */
export function retryAfterMs(header: string | null, now: number): number | undefined {
  if (header === null) return undefined;
  if (/^\d{1,6}$/.test(header)) return Number(header) * 1000;
  const at = Date.parse(header);
  return Number.isNaN(at) ? undefined : Math.max(0, at - now);
}

/** Places in the batch that a problem names ("entries.3.body.text", an entry's id); `ids`: of the batch, in order. */
export function refusalOf(problem: ProblemDocument, ids: readonly string[] = []): Attempt<never> {
  if (!aboutWhatWasSent.has(problem.code)) return { kind: 'wait' };
  const problems = problem.problems ?? [];
  const why = [problem.title, ...problems.map((one) => one.sentence)].join(' ');
  /** Place -> what is said of it, without the way there. */
  const named = new Map<number, string[]>();
  const name = (place: number, sentence: string): void => void named.set(place, [...(named.get(place) ?? []), sentence]);
  for (const { where, sentence } of problems) {
    const place = /^entries\.(\d+)(?:\.|$)/.exec(where)?.[1];
    if (place !== undefined) name(Number(place), sentence.replace(/^entries\.\d+\.(?:body\.)?/, ''));
    else ids.forEach((id, index) => (sentence.includes(id) ? name(index, problem.title) : undefined));
  }
  if (named.size === 0) return { kind: 'refused', why };
  return { kind: 'refused', why, named: [...named].map(([place, said]) => ({ place, why: said.join(' ') })) };
}
