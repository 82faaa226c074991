export {
  appendedSchema,
  blinkTablesSchema,
  boardChangesSchema,
  boardsSchema,
  boardStateSchema,
  changeBoardSchema,
  changeBlinkTableSchema,
  currentPackSchema,
  appendSchema,
  countsParams,
  customerSchema,
  customerSearchSchema,
  customersSchema,
  entryDraftSchema,
  mostCount,
  entrySchema,
  healthSchema,
  jobCardSchema,
  readJobCards,
  listJobsQuery,
  mostOnAPage,
  similarQuery,
  similarSchema,
  codeCountsSchema,
  familyParams,
  jobCardsSchema,
  afterQuery,
  jobParams,
  meterReplySchema,
  meterStateSchema,
  readMeterSchema,
  simulatedProbesSchema,
  jobSchema,
  newestCountsSchema,
  newJobSchema,
  newToldSchema,
  packParams,
  peopleSchema,
  personSchema,
  photoSchema,
  plateSchema,
  toldListSchema,
} from './api.ts';
export {
  imageFactsSchema,
  imageSchema,
  imagesSchema,
  listImagesQuery,
  publishImageSchema,
  uploadQuery,
  receivedSchema,
  imagePairParams,
  imageComparisonSchema,
  combineImagesSchema,
  combinedSchema,
  type CombineImages,
  type Combined,
  type Image,
  type ImageComparison,
  type ImageFacts,
  type PublishImage,
} from './images.ts';
export type {
  Appended,
  Customer,
  EntryDraft,
  Health,
  Job,
  BlinkTables,
  ChangeFamily,
  FamilyChanges,
  BoardState,
  BoardSummary,
  ChangeBoard,
  ChangeBlinkTable,
  JobCard,
  MeterReply,
  MeterState,
  SimulatedProbes,
  JobCards,
  ListJobs,
  SimilarQuery,
  CodeCounts,
  UnreadableCard,
  KnownCustomer,
  NewJob,
  NewJobInput,
  NewTold,
  Person,
  Photo,
  Plate,
  Told,
} from './api.ts';
export { boundsOf, type Bounds } from './bounds.ts';
export { addressOf, routes, tags } from './routes.ts';
export type { Asked, Checked, Operation, ReplyTo, RouteDescription, Routes } from './routes.ts';
export { errorCodes, errorStatus, ownHeader, problemDocumentSchema, problemMediaType } from './errors.ts';
export type { ErrorCode, ProblemDocument } from './errors.ts';
export { parseAmount, plainAmount, printMoney } from './money.ts';
export { comparisonSentence, fieldProblemSentence, findingSentence, problemSentence, reasonSentence } from './problems.ts';
export { flashSentence, flashWords, instrumentWords, languages, say, words, type FlashWords } from './words/index.ts';
export type { Language, Words } from './words/index.ts';
export { gearToProve, jobSettings, shopChangeSchema, shopSettingsSchema, shopStateSchema, usualShopSettings } from './shop.ts';
export type { ShopChange, ShopSettings, ShopState } from './shop.ts';
export { paperCodes, type PaperCode } from './paper.ts';
export { readVoltsCsv } from './voltsCsv.ts';
export { codeInWords } from './blink/words.ts';
export { ledgerChannel, liveMessageSchema, livePath, type LiveMessage } from './live.ts';
export { modificationSvg } from './modificationSvg.ts';
