export { assemblePack, parsePack, type PackFile } from './assemble.ts';
export { checkPack } from './check.ts';
export { compilePack, selectRow, type CompiledPack } from './compile.ts';
export { classifyCut, type CutClass } from './graph.ts';
export { hashPack } from './hash.ts';
export { deriveProcedure, drainMinutes, type PowerNeed, type Procedure } from './procedure.ts';
export { rest, rowNumbers, rowSumRange, type RowNumbers } from './scale.ts';
export { idSchema, packSchema, silentOutcomes } from './schema.ts';
export type {
  BlinkCode,
  Caution,
  Condition,
  Family,
  Fault,
  Layout,
  LikelihoodBlock,
  Pack,
  ProofItem,
  Repair,
  Stage,
  Step,
  TestDefinition,
  Text,
} from './schema.ts';
