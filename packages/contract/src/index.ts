export {
  appendedSchema,
  appendSchema,
  customerSchema,
  entryDraftSchema,
  entrySchema,
  healthSchema,
  jobCardSchema,
  jobCardsSchema,
  jobParams,
  jobSchema,
  newJobSchema,
  packParams,
  peopleSchema,
  personSchema,
  plateSchema,
  routes,
} from './api.ts';
export type { Appended, Customer, EntryDraft, Health, Job, JobCard, NewJob, NewJobInput, Person, Plate, RouteDescription } from './api.ts';
export { errorCodes, errorStatus, problemDocumentSchema, problemMediaType } from './errors.ts';
export type { ErrorCode, ProblemDocument } from './errors.ts';
export { problemSentence, reasonSentence } from './problems.ts';
export { languages, say, words } from './words/index.ts';
export type { Language, Words } from './words/index.ts';
