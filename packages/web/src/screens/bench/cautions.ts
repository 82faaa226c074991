/** Which cautions a step brings, and which of them this job has not recorded as read. Whole until they are; then one line. */
import type { CaseFold, CompiledPack, NextStep } from '@veglia/core';

/** Of the stages this step opens to: read and recorded once a job. */
export function stageCautions(step: NextStep, compiled: CompiledPack): string[] {
  const upTo = compiled.stageIds.indexOf(step.stage);
  return [...new Set(compiled.pack.stages.slice(1, upTo + 1).flatMap((stage) => stage.cautions))];
}

export const unreadCautions = (step: NextStep, fold: CaseFold, compiled: CompiledPack): string[] =>
  stageCautions(step, compiled).filter((id) => !fold.cautionsRead.includes(id));

/** All the step brings that this job hasn't recorded: those of the stages bar the way, those of the step itself stand whole until they are read. */
export const newCautions = (step: NextStep, fold: CaseFold, compiled: CompiledPack): string[] => [
  ...new Set([...unreadCautions(step, fold, compiled), ...step.cautions.filter((id) => !fold.cautionsRead.includes(id))]),
];
