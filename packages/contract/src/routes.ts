/**
 * The API's table: one line an operation. The server's router, the OpenAPI document and the browser's client are driven by it; its keys
 * are the operation ids and never change.
 */
import { countsSchema } from '@veglia/core';
import { z } from 'zod';
import {
  afterQuery,
  appendedSchema,
  appendSchema,
  blinkTablesSchema,
  changeFamilySchema,
  familyChangesSchema,
  boardChangesSchema,
  boardsSchema,
  boardStateSchema,
  changeBlinkTableSchema,
  changeBoardSchema,
  codeCountsSchema,
  countsParams,
  currentPackSchema,
  customersSchema,
  customerSearchSchema,
  documentSchema,
  familyParams,
  healthSchema,
  jobCardsSchema,
  jobParams,
  meterReplySchema,
  meterStateSchema,
  readMeterSchema,
  simulatedProbesSchema,
  jobSchema,
  listJobsQuery,
  newestCountsSchema,
  newJobSchema,
  newToldSchema,
  packParams,
  peopleSchema,
  personSchema,
  photoSchema,
  similarQuery,
  similarSchema,
  toldListSchema,
} from './api.ts';
import {
  combinedSchema,
  combineImagesSchema,
  eraseImageSchema,
  imageErasureSchema,
  imageErasuresSchema,
  flashHistoryQuery,
  flashHistorySchema,
  imageComparisonSchema,
  imageFactsBeforeSchema,
  imagePairParams,
  imageSchema,
  imagesSchema,
  listImagesQuery,
  publishImageSchema,
  putOwnSchema,
  receivedSchema,
  uploadQuery,
} from './images.ts';
import {
  cancelRunSchema,
  programmerParams,
  programmerRunParams,
  programmerRunSchema,
  programmersSchema,
  startRunSchema,
} from './programmers.ts';
import {
  changeStockSchema,
  listStockQuery,
  moveStockSchema,
  offersSchema,
  ordersSchema,
  partNumberQuery,
  partPricesSchema,
  stockListSchema,
  stockMovesSchema,
  stockStateSchema,
} from './parts.ts';
import { shopChangeSchema, shopStateSchema } from './shop.ts';

/** What routes are grouped by in the API’s document. */
export const tags = ['jobs', 'documents', 'parts', 'firmware', 'knowledge', 'statistics', 'shop', 'server'] as const;

/** A route: method, path, what is asked and what is replied. */
export interface RouteDescription {
  readonly method: 'get' | 'post' | 'put';
  /** Express form; OpenAPI's braces are made from it. */
  readonly path: string;
  readonly tag: (typeof tags)[number];
  readonly summary: string;
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  /** The body is a file of this type and no JSON. */
  readonly file?: string;
  readonly status: number;
  readonly reply: z.ZodType;
  /** Of the reply; left out: JSON. */
  readonly media?: string;
}

const pdf = { status: 200, reply: z.string(), media: 'application/pdf' } as const;

/** Every route of the server, by operation. */
export const routes = {
  health: { method: 'get', path: '/api/health', tag: 'server', summary: 'State of server and database', status: 200, reply: healthSchema },
  openApi: {
    method: 'get',
    path: '/api/openapi.json',
    tag: 'server',
    summary: 'This document',
    status: 200,
    reply: z.looseObject({ openapi: z.string() }),
  },
  meterState: { method: 'get', path: '/api/meter', tag: 'server', summary: 'Meter of this server', status: 200, reply: meterStateSchema },
  readMeter: {
    method: 'post',
    path: '/api/meter/readings',
    tag: 'server',
    summary: 'Set the meter and take a reading',
    body: readMeterSchema,
    status: 200,
    reply: meterReplySchema,
  },
  touchProbes: {
    method: 'put',
    path: '/api/meter/simulated',
    tag: 'server',
    summary: 'Put the probes of the simulated meter on something (demo data only)',
    body: simulatedProbesSchema,
    status: 200,
    reply: simulatedProbesSchema,
  },
  listPeople: { method: 'get', path: '/api/people', tag: 'shop', summary: 'People', status: 200, reply: peopleSchema },
  addPerson: {
    method: 'post',
    path: '/api/people',
    tag: 'shop',
    summary: 'Add a person',
    body: personSchema,
    status: 201,
    reply: peopleSchema,
  },
  readShop: { method: 'get', path: '/api/shop', tag: 'shop', summary: 'Shop settings', status: 200, reply: shopStateSchema },
  changeShop: {
    method: 'put',
    path: '/api/shop',
    tag: 'shop',
    summary: 'Replace the shop settings',
    body: shopChangeSchema,
    status: 200,
    reply: shopStateSchema,
  },
  searchCustomers: {
    method: 'post',
    path: '/api/customers/search',
    tag: 'shop',
    summary: 'Search customers',
    body: customerSearchSchema,
    status: 200,
    reply: customersSchema,
  },
  listBlinkTables: {
    method: 'get',
    path: '/api/blink-tables',
    tag: 'knowledge',
    summary: 'Changes of blink tables, newest first',
    status: 200,
    reply: blinkTablesSchema,
  },
  changeBlinkTable: {
    method: 'post',
    path: '/api/blink-tables',
    tag: 'knowledge',
    summary: 'Replace the blink table of a family (new pack version)',
    body: changeBlinkTableSchema,
    status: 201,
    reply: currentPackSchema,
  },
  familyCodes: {
    method: 'get',
    path: '/api/families/:family/codes',
    tag: 'knowledge',
    summary: 'Blink codes of closed jobs of a family, with the confirmed faults',
    params: familyParams,
    status: 200,
    reply: codeCountsSchema,
  },
  familyChanges: {
    method: 'get',
    path: '/api/families/changes',
    tag: 'knowledge',
    summary: 'Versions of families the shop added or changed, newest first',
    status: 200,
    reply: familyChangesSchema,
  },
  changeFamily: {
    method: 'post',
    path: '/api/families',
    tag: 'knowledge',
    summary: 'Add a family or replace it (new pack version)',
    body: changeFamilySchema,
    status: 201,
    reply: currentPackSchema,
  },
  listBoards: {
    method: 'get',
    path: '/api/boards',
    tag: 'knowledge',
    summary: 'Boards the shop knows, by number',
    status: 200,
    reply: boardsSchema,
  },
  readBoard: {
    method: 'get',
    path: '/api/boards/:id',
    tag: 'knowledge',
    summary: 'A board with its pictures, marks and known faults',
    params: jobParams,
    status: 200,
    reply: boardStateSchema,
  },
  changeBoard: {
    method: 'put',
    path: '/api/boards/:id',
    tag: 'knowledge',
    summary: 'Add a board or replace its document (new version)',
    params: jobParams,
    body: changeBoardSchema,
    status: 200,
    reply: boardStateSchema,
  },
  boardChanges: {
    method: 'get',
    path: '/api/boards/:id/changes',
    tag: 'knowledge',
    summary: 'Versions of a board, newest first',
    params: jobParams,
    status: 200,
    reply: boardChangesSchema,
  },
  currentPack: {
    method: 'get',
    path: '/api/packs/current',
    tag: 'knowledge',
    summary: 'Hash of the pack new jobs use',
    status: 200,
    reply: currentPackSchema,
  },
  readPack: {
    method: 'get',
    path: '/api/packs/:hash',
    tag: 'knowledge',
    summary: 'A knowledge pack',
    params: packParams,
    status: 200,
    reply: documentSchema,
  },
  newestCounts: {
    method: 'get',
    path: '/api/counts/newest',
    tag: 'statistics',
    summary: 'Number of the statistics new jobs use',
    status: 200,
    reply: newestCountsSchema,
  },
  readCounts: {
    method: 'get',
    path: '/api/counts/:number',
    tag: 'statistics',
    summary: 'Repair statistics by number',
    params: countsParams,
    status: 200,
    reply: countsSchema,
  },
  listTold: {
    method: 'get',
    path: '/api/told',
    tag: 'statistics',
    summary: 'Field experience, newest first',
    status: 200,
    reply: toldListSchema,
  },
  addTold: {
    method: 'post',
    path: '/api/told',
    tag: 'statistics',
    summary: 'Add field experience',
    body: newToldSchema,
    status: 201,
    reply: toldListSchema,
  },
  withdrawTold: {
    method: 'post',
    path: '/api/told/:id/withdraw',
    tag: 'statistics',
    summary: 'Withdraw field experience; open jobs keep their statistics',
    params: jobParams,
    status: 200,
    reply: toldListSchema,
  },
  listJobs: {
    method: 'get',
    path: '/api/jobs',
    tag: 'jobs',
    summary: 'Jobs as cards, a page at a time',
    query: listJobsQuery,
    status: 200,
    reply: jobCardsSchema,
  },
  similarJobs: {
    method: 'get',
    path: '/api/jobs/similar',
    tag: 'jobs',
    summary: 'Closed jobs that may be like this set, newest first',
    query: similarQuery,
    status: 200,
    reply: similarSchema,
  },
  takeIn: { method: 'post', path: '/api/jobs', tag: 'jobs', summary: 'Check in a set', body: newJobSchema, status: 201, reply: jobSchema },
  readJob: {
    method: 'get',
    path: '/api/jobs/:id',
    tag: 'jobs',
    summary: 'A job with its ledger',
    params: jobParams,
    status: 200,
    reply: jobSchema,
  },
  exportCase: {
    method: 'get',
    path: '/api/jobs/:id/case',
    tag: 'documents',
    summary: 'The job as a case file',
    params: jobParams,
    status: 200,
    reply: documentSchema,
  },
  label: {
    method: 'get',
    path: '/api/jobs/:id/label.pdf',
    tag: 'documents',
    summary: 'Label for the set: QR to the job, number, set, shelf, hazards',
    params: jobParams,
    ...pdf,
  },
  receipt: {
    method: 'get',
    path: '/api/jobs/:id/receipt.pdf',
    tag: 'documents',
    summary: 'Receipt for the customer',
    params: jobParams,
    ...pdf,
  },
  modificationLabel: {
    method: 'get',
    path: '/api/jobs/:id/modification.pdf',
    tag: 'documents',
    summary: 'Record of modifications with drawing and inside label',
    params: jobParams,
    ...pdf,
  },
  storePhoto: {
    method: 'put',
    path: '/api/photos/:id',
    tag: 'documents',
    summary: 'Store a photo: image file as the body, 20 MiB at most',
    params: jobParams,
    file: 'application/octet-stream',
    status: 201,
    reply: photoSchema,
  },
  readPhoto: {
    method: 'get',
    path: '/api/photos/:id',
    tag: 'documents',
    summary: 'A photo',
    params: jobParams,
    status: 200,
    reply: z.string(),
    media: 'image/*',
  },
  listImages: {
    method: 'get',
    path: '/api/images',
    tag: 'firmware',
    summary: 'Memory images, newest first: 200 at most',
    query: listImagesQuery,
    status: 200,
    reply: imagesSchema,
  },
  imageReceived: {
    method: 'get',
    path: '/api/images/:id/received',
    tag: 'firmware',
    summary: 'How many bytes of an image have arrived',
    params: jobParams,
    status: 200,
    reply: receivedSchema,
  },
  sendImage: {
    method: 'put',
    path: '/api/images/:id/content',
    tag: 'firmware',
    summary: 'Bytes of an image from an offset on; any number of requests, 9 GiB in all',
    params: jobParams,
    query: uploadQuery,
    file: 'application/octet-stream',
    status: 200,
    reply: receivedSchema,
  },
  publishImage: {
    method: 'put',
    path: '/api/images/:id',
    tag: 'firmware',
    summary: 'Complete an image, or replace what is said of it',
    params: jobParams,
    body: publishImageSchema,
    status: 200,
    reply: imageSchema,
  },
  readImage: {
    method: 'get',
    path: '/api/images/:id',
    tag: 'firmware',
    summary: 'What an image is',
    params: jobParams,
    status: 200,
    reply: imageSchema,
  },
  imageContent: {
    method: 'get',
    path: '/api/images/:id/content',
    tag: 'firmware',
    summary: 'Bytes of an image; a range of them where one is asked for',
    params: jobParams,
    status: 200,
    reply: z.string(),
    media: 'application/octet-stream',
  },
  eraseImage: {
    method: 'post',
    path: '/api/images/:id/erase',
    tag: 'firmware',
    summary: 'Erase an image; who, when and why stays on record',
    params: jobParams,
    body: eraseImageSchema,
    status: 200,
    reply: imageErasureSchema,
  },
  imageErasures: {
    method: 'get',
    path: '/api/image-erasures',
    tag: 'firmware',
    summary: 'Images that were erased',
    status: 200,
    reply: imageErasuresSchema,
  },
  flashHistory: {
    method: 'get',
    path: '/api/flash-history',
    tag: 'firmware',
    summary: 'What the shop has seen of images and settings on a board',
    query: flashHistoryQuery,
    status: 200,
    reply: flashHistorySchema,
  },
  listProgrammers: {
    method: 'get',
    path: '/api/programmers',
    tag: 'firmware',
    summary: 'Chip programmers of this server',
    status: 200,
    reply: programmersSchema,
  },
  startRun: {
    method: 'post',
    path: '/api/programmers/:id/runs',
    tag: 'firmware',
    summary: 'Start work of a programmer on the memory of a job; its result is recorded there',
    params: programmerParams,
    body: startRunSchema,
    status: 202,
    reply: programmerRunSchema,
  },
  readRun: {
    method: 'get',
    path: '/api/programmer-runs/:id',
    tag: 'firmware',
    summary: 'How far a programmer’s work is, and what came of it',
    params: programmerRunParams,
    status: 200,
    reply: programmerRunSchema,
  },
  cancelRun: {
    method: 'post',
    path: '/api/programmer-runs/:id/cancel',
    tag: 'firmware',
    summary: 'Break a programmer’s work off',
    params: programmerRunParams,
    body: cancelRunSchema,
    status: 200,
    reply: programmerRunSchema,
  },
  combineImages: {
    method: 'post',
    path: '/api/images/:id/combined',
    tag: 'firmware',
    summary: 'Make an image of several reads of a failing chip, bit by bit by majority',
    params: jobParams,
    body: combineImagesSchema,
    status: 201,
    reply: combinedSchema,
  },
  putOwn: {
    method: 'post',
    path: '/api/images/:id/with-own',
    tag: 'firmware',
    summary: 'Make an image of another one, with the own content of a set put in',
    params: jobParams,
    body: putOwnSchema,
    status: 201,
    reply: imageSchema,
  },
  imageFactsBefore: {
    method: 'get',
    path: '/api/images/:id/facts-before',
    tag: 'firmware',
    summary: 'What was said of an image before, and who changed it',
    params: jobParams,
    status: 200,
    reply: imageFactsBeforeSchema,
  },
  compareImages: {
    method: 'get',
    path: '/api/images/:id/compare/:other',
    tag: 'firmware',
    summary: 'Where two images differ, in runs of 64 KiB',
    params: imagePairParams,
    status: 200,
    reply: imageComparisonSchema,
  },
  listStock: {
    method: 'get',
    path: '/api/stock',
    tag: 'parts',
    summary: 'Stock, with what is there and what is set aside',
    query: listStockQuery,
    status: 200,
    reply: stockListSchema,
  },
  readStock: {
    method: 'get',
    path: '/api/stock/:id',
    tag: 'parts',
    summary: 'An item of the stock',
    params: jobParams,
    status: 200,
    reply: stockStateSchema,
  },
  changeStock: {
    method: 'put',
    path: '/api/stock/:id',
    tag: 'parts',
    summary: 'Add or replace an item of the stock',
    params: jobParams,
    body: changeStockSchema,
    status: 200,
    reply: stockStateSchema,
  },
  moveStock: {
    method: 'post',
    path: '/api/stock/:id/moves',
    tag: 'parts',
    summary: 'Record pieces that came or went',
    params: jobParams,
    body: moveStockSchema,
    status: 200,
    reply: stockStateSchema,
  },
  stockMoves: {
    method: 'get',
    path: '/api/stock/:id/moves',
    tag: 'parts',
    summary: 'Pieces that came and went, newest first',
    params: jobParams,
    status: 200,
    reply: stockMovesSchema,
  },
  orders: {
    method: 'get',
    path: '/api/orders',
    tag: 'parts',
    summary: 'Parts of open jobs that are to be ordered, on order, here or to be sent back',
    status: 200,
    reply: ordersSchema,
  },
  offers: {
    method: 'get',
    path: '/api/offers',
    tag: 'parts',
    summary: 'Offers of all suppliers for a part number',
    query: partNumberQuery,
    status: 200,
    reply: offersSchema,
  },
  partPrices: {
    method: 'get',
    path: '/api/part-prices',
    tag: 'parts',
    summary: 'What was paid or asked for a part number before',
    query: partNumberQuery,
    status: 200,
    reply: partPricesSchema,
  },
  entriesAfter: {
    method: 'get',
    path: '/api/jobs/:id/entries',
    tag: 'jobs',
    summary: 'Entries after a seq',
    params: jobParams,
    query: afterQuery,
    status: 200,
    reply: appendedSchema,
  },
  append: {
    method: 'post',
    path: '/api/jobs/:id/entries',
    tag: 'jobs',
    summary: 'Append entries; ids already stored are skipped',
    params: jobParams,
    body: appendSchema,
    status: 200,
    reply: appendedSchema,
  },
} as const satisfies Readonly<Record<string, RouteDescription>>;

/** Every route of the server. */
export type Routes = typeof routes;
/** Name of a route. */
export type Operation = keyof Routes;

type Part<R, K extends string, Way extends 'input' | 'output'> =
  R extends Readonly<Record<K, infer S extends z.ZodType>> ? (Way extends 'input' ? z.input<S> : z.output<S>) : undefined;

/** What a handler of the server gets: each part of the request, checked. */
export type Checked<O extends Operation> = {
  readonly params: Part<Routes[O], 'params', 'output'>;
  readonly query: Part<Routes[O], 'query', 'output'>;
  readonly body: Part<Routes[O], 'body', 'output'>;
};

/** What a client hands over: each part before its defaults; parts that an operation hasn't got are left out. */
export type Asked<O extends Operation> = {
  readonly [K in 'params' | 'query' | 'body' as Routes[O] extends Readonly<Record<K, z.ZodType>> ? K : never]: Part<Routes[O], K, 'input'>;
};

/** What an operation replies. */
export type ReplyTo<O extends Operation> = z.output<Routes[O]['reply']>;

type Scalar = string | number | boolean | null | undefined;

/** Path and query of a request, with every part escaped. Empty and missing parts of the query are left out. */
export function addressOf(
  operation: Operation,
  params: Readonly<Record<string, Scalar>> = {},
  query: Readonly<Record<string, Scalar>> = {},
): string {
  const path = routes[operation].path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(params[name])));
  const search = new URLSearchParams();
  for (const [key, value] of Object.entries(query))
    if (value !== undefined && value !== null && value !== '') search.set(key, String(value));
  const asked = search.toString();
  return asked === '' ? path : `${path}?${asked}`;
}
