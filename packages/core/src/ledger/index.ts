export {
  accessories,
  bodySchemas,
  conditions,
  earlierHands,
  earlierWork,
  entryKinds,
  layoutGuessSchema,
  checkResults,
  closingChecks,
  confirmedHows,
  skipReasons,
  consents,
  outcomesOfAJob,
  answerWays,
  arrivalResults,
  comebackFaults,
  comebackPayers,
  lineKinds,
  moneySchema,
  messageResults,
  messageTemplates,
  oldPartFates,
  paperLanguages,
  partSources,
  paymentWays,
  returnReasons,
  personalFields,
  plainFields,
  photoSubjects,
  quoteOptions,
  redactedText,
  theorySources,
  setFactsSchema,
  stimuli,
  stimulusEffects,
} from './bodies.ts';
export type { Body, BodyOf, EntryKind, Lifted, Money, SetFacts, TaxRule, Toward } from './bodies.ts';
export { caseFileSchema, caseOfLedger, defaultSettings, findEntry, parseCase, settingsSchema } from './caseFile.ts';
export type { CaseFile, CaseInput, Entry, ReadCase, Settings } from './caseFile.ts';
export {
  flashDidSchema,
  flashFeeds,
  flashPlans,
  flashResults,
  pictureLooks,
  flashWhys,
  imageFits,
  imageSources,
  memories,
  memoryAreas,
  mostLogLetters,
  overrideReasons,
  wayOutChecks,
  waysIn,
  type FlashDid,
  type MemoryArea,
} from './flashStep.ts';
export { agreedLast, type Agreed } from './agreed.ts';
export { liveEntries } from './live.ts';
export { plugsAfter, setOnArrival, stateAfter, type AtMemory, type Established, type SetState } from './setState.ts';
export {
  currentFormat,
  currentVersion,
  readBody,
  upgradeCaseFile,
  upgradeCaseParts,
  type LedgerFormat,
  type ReadBody,
  type Upgrader,
} from './upgrade.ts';
export { countsSchema, type Counts } from './counts.ts';
export { pinsOf, type Pins } from './pins.ts';
export { openWaits, type Wait } from './waits.ts';
