/** Two who write the same at the same instant: the second finds what the first wrote, and is answered as the retry it is. */
import { canonicalJson } from '@veglia/core';
import { UniqueConstraintError } from 'sequelize';
import { ApiError } from './apiError.ts';

/** PostgreSQL's own codes: serialization failure and deadlock. */
const lostRace = new Set(['40001', '40P01']);
/** More than three in the same instant each lose to another one once. */
const attempts = 5;

/** Whether the database refused because another transaction was first. */
export function isLostRace(error: unknown): boolean {
  if (error instanceof UniqueConstraintError) return true;
  const { original } = error as { original?: { code?: unknown } };
  return typeof original?.code === 'string' && lostRace.has(original.code);
}

/** Does it again where it lost a race; `work` must look first at what is there. Throws what the last attempt threw. */
export async function againIfOvertaken<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt += 1) {
    try {
      return await work();
    } catch (error) {
      if (attempt === attempts || !isLostRace(error)) throw error;
    }
  }
}

/** The same once more is the retry it is; something else under an id that is taken is told. Throws entry-conflict. */
export function requireSame(id: string, there: object, sent: object, where = 'id'): void {
  if (canonicalJson(there) !== canonicalJson(sent)) throw new ApiError('entry-conflict', [{ code: 'duplicate-id', where, value: id }]);
}
