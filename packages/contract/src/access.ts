/**
 * Who may do what: one line a route, and the kinds of entries somebody at the counter may write. The server asks these tables, screens hide by
 * them, and tests go through them; a route without a line does not compile.
 */
import type { EntryKind } from '@veglia/core';
import { roles, type Role } from './accounts.ts';
import type { Operation } from './routes.ts';

/** Who may use a route. `fresh`: a password (and second factor) on this session not long ago; a PIN or an old session is not enough. */
export interface Access {
  /** `open`: no one has to be signed in. */
  readonly who: 'open' | readonly Role[];
  readonly fresh?: true;
}
const open: Access = { who: 'open' };
const everyone: Access = { who: roles };
const bench: Access = { who: ['technician', 'owner'] };
/** What is not taken back, or decides over others. */
const owner: Access = { who: ['owner'], fresh: true };
/** One’s own account. */
const own: Access = { who: roles, fresh: true };

/** Of every route. */
export const routeAccess: Readonly<Record<Operation, Access>> = {
  readSession: open,
  signIn: open,
  signInByPin: open,
  signInToDemo: open,
  joinByCode: open,
  signOut: everyone,
  confirmSelf: everyone,
  changePassword: own,
  setPin: own,
  trustBench: { who: ['technician', 'owner'], fresh: true },
  startFactor: own,
  confirmFactor: own,
  dropFactor: own,
  listPasskeys: everyone,
  offerPasskey: own,
  addPasskey: own,
  dropPasskey: own,
  askPasskey: open,
  usePasskey: open,
  listAccounts: { who: ['owner'] },
  addAccount: owner,
  changeAccount: owner,
  inviteAccount: owner,
  listBenches: { who: ['owner'] },
  endBench: owner,
  listAudit: { who: ['owner'] },
  customerData: owner,
  eraseCustomer: owner,
  accountData: owner,
  eraseAccount: owner,
  health: everyone,
  openApi: everyone,
  meterState: everyone,
  readMeter: bench,
  touchProbes: bench,
  listPeople: everyone,
  listPaces: everyone,
  readShop: everyone,
  changeShop: owner,
  searchCustomers: everyone,
  listBlinkTables: everyone,
  changeBlinkTable: bench,
  familyCodes: everyone,
  familyChanges: everyone,
  changeFamily: bench,
  listBoards: everyone,
  readBoard: everyone,
  changeBoard: bench,
  boardChanges: everyone,
  currentPack: everyone,
  readPack: everyone,
  newestCounts: everyone,
  readCounts: everyone,
  listTold: everyone,
  addTold: bench,
  withdrawTold: bench,
  listJobs: everyone,
  similarJobs: everyone,
  takeIn: everyone,
  readJob: everyone,
  exportCase: everyone,
  label: everyone,
  receipt: everyone,
  quotePaper: everyone,
  reportPaper: everyone,
  invoicePaper: everyone,
  technicianPaper: everyone,
  helpText: everyone,
  sendMessage: everyone,
  modificationLabel: everyone,
  storePhoto: everyone,
  readPhoto: everyone,
  listImages: bench,
  imageReceived: bench,
  sendImage: bench,
  publishImage: bench,
  readImage: bench,
  imageContent: bench,
  eraseImage: owner,
  imageErasures: bench,
  flashHistory: bench,
  listProgrammers: bench,
  startRun: bench,
  readRun: bench,
  cancelRun: bench,
  combineImages: bench,
  putOwn: bench,
  imageFactsBefore: bench,
  compareImages: bench,
  listStock: everyone,
  readStock: everyone,
  changeStock: everyone,
  moveStock: everyone,
  stockMoves: everyone,
  orders: everyone,
  offers: everyone,
  partPrices: everyone,
  entriesAfter: everyone,
  append: everyone,
};

/**
 * What is written at the counter: the set, what the customer says and agrees to, parcels, dates, the hand-over. Nothing that says how the set
 * is inside, that it is safe, repaired or proven. Answers only of checks with the cover on; the server looks which those are.
 */
const counterKinds = new Set<EntryKind>([
  'job.opened',
  'layout.found',
  'symptom.reported',
  'blink.read',
  'test.answered',
  'theory.told',
  'caution.read',
  'advice.shown',
  'wait.started',
  'wait.ended',
  'photo.added',
  'note.added',
  'entry.retracted',
  'limit.agreed',
  'quote.sent',
  'quote.answered',
  'date.promised',
  'set.shelved',
  'set.collected',
  'comeback.linked',
  'message.sent',
  'part.wanted',
  'part.ordered',
  'part.arrived',
  'part.returned',
  'part.dropped',
]);
/** Whether somebody of this role writes such an entry at all. */
export const mayWrite = (role: Role, kind: EntryKind): boolean => role !== 'counter' || counterKinds.has(kind);
/** Whether a role may use a route. */
export const mayUse = (role: Role | undefined, operation: Operation): boolean => {
  const { who } = routeAccess[operation];
  return who === 'open' || (role !== undefined && who.includes(role));
};
