export { readChipCode, type ChipCode } from './chipCode.ts';
export { flashromArguments, readFlashrom, type FlashromResult, type FlashromWork } from './flashrom.ts';
export {
  programmerTroubles,
  type ChipFound,
  type ChipImage,
  type ChipProgrammer,
  type ChipRead,
  type ChipVerified,
  type ProgrammerReady,
  type ProgrammerTrouble,
  type ProgrammerWork,
  type StopSignal,
} from './programmer.ts';
export { beginsAsSfdp, readSfdp, type Sfdp, type SfdpErase, type SfdpRefused } from './sfdp.ts';
