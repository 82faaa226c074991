export { readBootConfig, sameBoot, type BootConfig, type BootConfigSays } from './bootConfig.ts';
export { flashCourse, type CourseStep } from './course.ts';
export { flashAnswering, flashInstruments, flashBodies } from './answers.ts';
export {
  flashFindings,
  flashGates,
  flashSessions,
  foldFlash,
  gatesOf,
  keptContent,
  nextFlashStep,
  sizeOf,
  wayOutOf,
  type AreaState,
  type FlashAim,
  type FlashFinding,
  type FlashGate,
  type FlashSession,
} from './session.ts';
export { boardOfMemory, flashCautions, flashReadiness, stageOfMemory, type FlashReadiness, type FlashUnsafe } from './safe.ts';
export { formatBytes, parseBytes } from './size.ts';
export { DumpReader, oddOf, type DumpFacts } from './dump.ts';
export { bitCertainty, certainty, mostReads, noVotes, readsNeeded, vote, type Votes } from './majority.ts';
export { fileReasons, imageFormats, mostTextSpan, readImageFile, type FileRefused, type ImageFile } from './formats.ts';
export { comparisonFindings, DumpComparer, mostPlaces, type DumpComparison } from './compare.ts';
export { copyForecast, usualCopyTime, type CopyForecast } from './copyTime.ts';
export { fitCodes, judgeFit, type Fit, type FitAim, type FitImage, type FitPoint } from './fit.ts';
export { hitsAndMisses, targetOf, trialsOf, wonSettings, type FlashTrial, type WonSetting } from './history.ts';
export { ContentReader, contentRuns, type Content, type ContentBlock, type ContentSignature, type ContentString } from './content.ts';
export {
  joinOwn,
  mostOwnPlaces,
  ownByDifference,
  OwnFinder,
  ownKinds,
  ownRefused,
  type OwnImage,
  type OwnPlace,
  type OwnRefused,
} from './own.ts';
export type { Moved } from './moved.ts';
export { maskSecrets } from './secrets.ts';
export { contactsOf, type ChipPin } from './pins.ts';
export { nextValue, settingFor, triedValues, type PictureLook, type PictureSetting } from './settings.ts';
