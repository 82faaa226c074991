export { assertBelief, believe, influences, type Belief, type Influence } from './belief.ts';
export { cardOf, jobStates, waitsForKinds, type WaitsFor, type JobCardFacts, type JobState } from './card.ts';
export { doubtCodes, notInBook, unusedCodes } from './interpretation.ts';
export type { Doubt, DoubtCode, Unused, UnusedCode } from './interpretation.ts';
export { engine, foldCase, type AssemblyView, type Because, type CaseFold, type FaultView } from './fold.ts';
export { expectedInformation } from './information.ts';
export { decisionOf, type Decision } from './cost.ts';
export { passedProofs, type PassedProof } from './checkProofs.ts';
export { compareSteps, comparisonCodes, type Comparison, type ComparisonCode } from './compare.ts';
export { curesOf } from './cures.ts';
export { doubtfulAnswers, type DoubtfulAnswer } from './doubtful.ts';
export { decideFrom, type Depth } from './cheapest.ts';
export { policies, recommend, stepsFor, type LeftOut, type Policy, type Recommendation } from './next.ts';
export { leftOutCodes, offerOf, offersOf, type LeftOutCode, type Offer } from './offers.ts';
export { proofOf } from './proof.ts';
export { mayHideSecond, secondFaultOdds, twoFaults, type TwoFaults } from './pairs.ts';
export { entropyBits, logOdds, posterior } from './posterior.ts';
export { circumstancesIn, outcomeTable, plainOutcome } from './rows.ts';
export {
  isLongShot,
  minutesToStage,
  priceOf,
  reasonCodes,
  stageOf,
  type NextStep,
  type OutcomePreview,
  type Reason,
  type ReasonCode,
} from './steps.ts';
export { verdicts, type MissingStep, type Verdict } from './verdict.ts';
export { asOf, effectsOf, goOnWithEffects, type Effect, type EffectsSoFar } from './history.ts';
