import { traitsHold, type Condition, type Family } from '../../knowledge/index.ts';

/** What a condition of the pack is held against. */
export interface Circumstances {
  readonly symptoms: ReadonlySet<string>;
  readonly family: Family | undefined;
  readonly layoutId: string;
}

/** Whether all parts of a condition hold. No symptom told yet fits any; a trait the family doesn't state is `unknown`. */
export function holds(condition: Condition | undefined, now: Circumstances): boolean {
  if (!condition) return true;
  if (condition.symptoms && now.symptoms.size > 0 && !condition.symptoms.some((id) => now.symptoms.has(id))) return false;
  if (condition.layouts && !condition.layouts.includes(now.layoutId)) return false;
  return traitsHold(condition.traits ?? {}, now.family);
}
