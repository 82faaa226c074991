/** Which cautions a step brings, and which of them this job has not recorded as read. */
import type { CaseFold, CompiledPack, NextStep } from '@veglia/core';

/** Of the stages this step opens to: read and recorded once a job. */
export function stageCautions(step: NextStep, compiled: CompiledPack): string[] {
  const upTo = compiled.stageIds.indexOf(step.stage);
  return [...new Set(compiled.pack.stages.slice(1, upTo + 1).flatMap((stage) => stage.cautions))];
}

export const unreadCautions = (step: NextStep, fold: CaseFold, compiled: CompiledPack): string[] =>
  stageCautions(step, compiled).filter((id) => !fold.cautionsRead.includes(id));
