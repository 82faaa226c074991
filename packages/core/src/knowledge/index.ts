export { hazardsOfTest } from './hazards.ts';
export { hasPlace } from './applies.ts';
export { hazards, type Hazard } from './schema.ts';
export { outcomesThatFollow } from './consequences.ts';
export { proofKinds, type ProofRule } from './proofRules.ts';
export { activeLevel, activeLowShare, asksAt, chassis, forcingOf, inputStandsVolts, type ActiveLevel, type Forcing } from './force.ts';
export { inScope, knownAs, matchSet, type PlacedFault, type PlacedRepair, type SetIdentity } from './applies.ts';
export { assemblePack, ownNamesOnly, parsePack, type PackFile } from './assemble.ts';
export { checkPack } from './check.ts';
export {
  familiesCovering,
  familyHints,
  familyFileSchema,
  familyProblems,
  likeFamily,
  linkInstead,
  ribbonsOf,
  withFamily,
  withinFamily,
  type Covering,
  type Plate,
} from './families.ts';
export { blinkTableOf, blinkTableProblems, blinkTableSchema, withBlinkTable, type BlinkTable } from './blinkTable.ts';
export { compilePack, selectRow, traitsHold, type CompiledPack } from './compile.ts';
export { classifyCut, type CutClass } from './graph.ts';
export { historiesTold, historyGiven } from './histories.ts';
export type { History } from './historySchema.ts';
export { canonicalJson, hashPack } from './hash.ts';
export { packDocumentSchema, packVersion, upgradePack } from './upgrade.ts';
export { layoutProbabilitiesByLooks } from './looks.ts';
export { deriveProcedure, drainMinutes, type PowerNeed, type Procedure } from './procedure.ts';
export { stageOfPlace } from './places.ts';
export { rest, rowNumbers, rowSumRange, type RowNumbers } from './scale.ts';
export { idSchema, packSchema, pinStates, repairKinds, silentOutcomes } from './schema.ts';
export type {
  BlinkCode,
  Caution,
  Condition,
  Family,
  Fault,
  LabelEntry,
  Layout,
  LikelihoodBlock,
  Manner,
  Pack,
  PinState,
  ProofItem,
  Repair,
  Seen,
  Stage,
  Step,
  TestDefinition,
  Text,
} from './schema.ts';
