export {
  checksMissing,
  proofBeforeClosing,
  proofName,
  proofNeeds,
  proofOfRepair,
  type Proof,
  type ProofItem,
  type ProofState,
  type SkipReason,
  type StartsSeen,
} from './proof.ts';
export { delaysCompared, failureBound, type DelaysCompared } from './starts.ts';
