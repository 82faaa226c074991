/** What stands on a label or a receipt, as codes; the sentences are in words/. */
import type { accessories, conditions } from '@veglia/core';

/** A condition of a set on arrival. */
export type Condition = (typeof conditions)[number];
/** What came with a set. */
export type Accessory = (typeof accessories)[number];

/** Lines of label and receipt. */
export const paperCodes = [
  'job',
  'shelf',
  'noShelf',
  'photos',
  'size',
  'serial',
  'hazards',
  'charged',
  'receipt',
  'takenIn',
  'customer',
  'ownSet',
  'set',
  'complaint',
  'inWords',
  'goesOn',
  'condition',
  'nothingSeen',
  'cameAlong',
  'nothingElse',
  'agreed',
  'limit',
  'minutes',
  'checkFee',
  'mayLoseData',
  'keepData',
  'warrantyRunning',
  'secondFault',
  'sign',
  'modifications',
  'modified',
  'undo',
  'lost',
  'plugsKept',
  'plugsCut',
  'noStandby',
  'noModification',
] as const;
/** One of `paperCodes`. */
export type PaperCode = (typeof paperCodes)[number];
