export { assertBelief, believe, influences, type Belief, type Influence } from './belief/belief.ts';
export {
  bystanders,
  cardOf,
  jobStates,
  waitsForKinds,
  type WaitsFor,
  type JobCardFacts,
  type JobState,
  type Planned,
} from './views/card.ts';
export { doubtCodes, notInBook, unusedCodes } from './evidence/interpretation.ts';
export type { Doubt, DoubtCode, Unused, UnusedCode } from './evidence/interpretation.ts';
export { engine, foldCase, type AssemblyView, type Because, type CaseFold, type FaultView } from './views/fold.ts';
export { expectedInformation } from './advice/information.ts';
export { decisionOf, type Decision } from './advice/cost.ts';
export { passedProofs, type PassedProof } from './verdict/checkProofs.ts';
export { compareSteps, comparisonCodes, type Comparison, type ComparisonCode } from './advice/compare.ts';
export { curesOf } from './evidence/cures.ts';
export { doubtfulAnswers, type DoubtfulAnswer } from './belief/doubtful.ts';
export { decideFrom, type Depth } from './advice/cheapest.ts';
export { policies, recommend, stepsFor, type LeftOut, type Policy, type Recommendation } from './advice/next.ts';
export { leftOutCodes, offerOf, offersOf, type LeftOutCode, type Offer } from './advice/offers.ts';
export { proofOf } from './verdict/proof.ts';
export { mayHideSecond, secondFaultProbability, twoFaults, type TwoFaults } from './belief/pairs.ts';
export { entropyBits, logOdds, posterior } from './belief/posterior.ts';
export { circumstancesIn, outcomeTable, plainOutcome } from './evidence/rows.ts';
export {
  isLongShot,
  minutesToStage,
  priceOf,
  reasonCodes,
  type NextStep,
  type OutcomePreview,
  type Reason,
  type ReasonCode,
} from './advice/steps.ts';
export { verdicts, type MissingStep, type Verdict } from './verdict/verdict.ts';
export { asOf, effectsOf, goOnWithEffects, type Effect, type EffectsSoFar } from './belief/effects.ts';
export { curingStep } from './evidence/seen.ts';
export { spentSoFar } from './views/spent.ts';
export { mayOrder, type PartAsked } from './views/mayOrder.ts';
