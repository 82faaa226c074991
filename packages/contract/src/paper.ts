/** What stands on a label or a receipt, as codes; the sentences are in words/. */
import type { accessories, conditions } from '@veglia/core';

export type Condition = (typeof conditions)[number];
export type Accessory = (typeof accessories)[number];

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
] as const;
export type PaperCode = (typeof paperCodes)[number];
