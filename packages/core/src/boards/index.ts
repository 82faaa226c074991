export { boardFileSchema, parseBoardFile, photosOf, type BoardFile } from './file.ts';
export { pointOfLabel, readLabel, type ReadLabel } from './label.ts';
export {
  judgePin,
  learnedFrom,
  pinExpected,
  pinId,
  pinsAgree,
  pinSources,
  pinSpot,
  type PinExpected,
  type PinJudgement,
  type PinSource,
} from './pins.ts';
export { boardsFound, pinName, placesOf, withGoodReading, type PlaceOnBoard } from './places.ts';
export {
  boardSchema,
  pinExpectationSchema,
  faultCardSchema,
  markKinds,
  markSchema,
  mostPins,
  parseBoard,
  type Board,
  type BoardInput,
  type Connector,
  type PinExpectation,
  type FaultCard,
  type Mark,
  type MarkKind,
  type Pin,
  type BoardSpot,
  type SpotMark,
} from './schema.ts';
