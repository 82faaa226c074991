/** Talking to the server. A refusal is a value with its problem document; only "can't be reached" and bugs throw. */
import {
  addressOf,
  ownHeader,
  problemDocumentSchema,
  readJobCards,
  routes,
  type Account,
  type Appended,
  type AuditLine,
  type Bench,
  type Session,
  type Asked,
  type BlinkTables,
  type ChangeFamily,
  type FamilyChanges,
  type BoardState,
  type BoardSummary,
  type ChangeBoard,
  type ChangeBlinkTable,
  type CodeCounts,
  type Combined,
  type CombineImages,
  type EntryDraft,
  type Erased,
  type EraseCustomer,
  type EraseImage,
  type FlashHistory,
  type Health,
  type Image,
  type ImageComparison,
  type ImageErasure,
  type ImageFactsBefore,
  type Job,
  type JobCard,
  type JobCards,
  type KnownCustomer,
  type MoveStock,
  type Offers,
  type Orders,
  type PartPrices,
  type StockMoves,
  type StockState,
  type MeterReply,
  type MeterState,
  type SimulatedProbes,
  type NewJobInput,
  type NewTold,
  type Operation,
  type Paces,
  type PasskeyOptions,
  type PasskeyUsed,
  type Person,
  type Photo,
  type ProblemDocument,
  type Programmer,
  type ProgrammerRun,
  type PublishImage,
  type PutOwn,
  type ReplyTo,
  type RouteDescription,
  type ShopChange,
  type ShopState,
  type StartRun,
  type Told,
} from '@veglia/contract';
import { parsePack, type Counts, type Pack } from '@veglia/core';
import { ref } from 'vue';
import { local } from './stores/local.ts';
import { isNotNow, retryAfterMs } from './sync/reply.ts';

/** No reply, one that can't be read, or the server said that it is in trouble itself: worth another try later. */
export class NotReached extends Error {
  /** As the server asked, milliseconds. */
  readonly afterMs: number | undefined;

  constructor(message: string, afterMs?: number) {
    super(message);
    this.afterMs = afterMs;
  }
}

/** The server knows nobody behind this browser any more: what was typed stays, and is sent once somebody signs in. */
export class SignedOut extends NotReached {}

/** Who the server knows this browser as: only what they wrote themselves is sent. */
export const signedInAs = ref<string>();
/** What the frame of the app does when the server asks who is there. */
export const door = {
  signedOut: (): void => undefined,
  /** Resolves to whether the password was shown again. */
  confirm: (): Promise<boolean> => Promise.resolve(false),
};

export type Reply<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: ProblemDocument };

/** How a reply is read; left out: by the schema its route has in the contract. */
type Reader<O extends Operation, T> = ((value: unknown) => T) & { readonly operation?: O };
type Sent<O extends Operation> = Asked<O> & { readonly file?: Blob };

function addressFor<O extends Operation>(operation: O, asked: Asked<O>): string {
  const { params, query } = asked as { params?: Record<string, string | number>; query?: Record<string, string | number | undefined> };
  return addressOf(operation, params, query);
}

async function call<O extends Operation, T = ReplyTo<O>>(operation: O, asked: Sent<O>, read?: Reader<O, T>): Promise<Reply<T>> {
  const route: RouteDescription = routes[operation];
  const { body, file } = asked as { body?: unknown; file?: Blob };
  let response: Response;
  try {
    response = await fetch(addressFor(operation, asked), {
      method: route.method.toUpperCase(),
      ...(file === undefined
        ? route.method === 'get'
          ? {}
          : { headers: { [ownHeader]: '1', 'content-type': 'application/json' }, body: JSON.stringify(body ?? {}) }
        : { headers: { [ownHeader]: '1', 'content-type': 'application/octet-stream' }, body: file }),
    });
  } catch (error) {
    throw new NotReached(String(error));
  }
  const said: unknown = await (response.ok && route.media === 'application/zip' ? response.blob() : response.json()).catch(() => undefined);
  // Cut off in the middle: whether it was stored isn't known.
  if (response.ok && said === undefined) throw new NotReached('the reply broke off');
  if (response.ok) return { ok: true, value: readWith(operation, said, read) };
  const problem = problemDocumentSchema.safeParse(said);
  if (problem.success && problem.data.code === 'signed-out') {
    signedInAs.value = undefined;
    door.signedOut();
    throw new SignedOut('signed out');
  }
  // Asked once and sent again: whoever is there never sees the refusal.
  if (problem.success && problem.data.code === 'sign-in-again' && (await door.confirm())) return call(operation, asked, read);
  // Too many wrong attempts is about what was typed here, and told where it was typed.
  if (!problem.success || (isNotNow(response.status) && problem.data.code !== 'too-many-attempts'))
    throw new NotReached(`status ${response.status}`, retryAfterMs(response.headers.get('retry-after'), Date.now()));
  return { ok: false, problem: problem.data };
}

const readWith = <O extends Operation, T>(operation: O, said: unknown, read?: Reader<O, T>): T =>
  read ? read(said) : (routes[operation].reply.parse(said) as T);

/** Whether the last look at something kept came from the server; screens say so where it didn't. */
export const reachedServer = ref(true);

/**
 * The same for what a bench must be able to look at without a server: each reply is kept, and where the server is away the one kept
 * last is given instead. Throws NotReached where there is none.
 */
async function look<O extends Operation, T = ReplyTo<O>>(operation: O, asked: Asked<O>, read?: Reader<O, T>): Promise<Reply<T>> {
  const path = addressFor(operation, asked);
  let raw: unknown;
  try {
    const reply = await call(operation, asked, (value) => {
      raw = value;
      return readWith(operation, value, read);
    });
    reachedServer.value = true;
    if (reply.ok) await (await local()).put('kept', { path, at: new Date().toISOString(), reply: raw });
    return reply;
  } catch (error) {
    if (!(error instanceof NotReached) || error instanceof SignedOut) throw error;
    reachedServer.value = false;
    const kept = await (await local()).get('kept', path);
    if (!kept) throw error;
    return { ok: true, value: readWith(operation, kept.reply, read) };
  }
}

/** For what never changes under its path: asked once in a browser's life. */
async function lookOnce<O extends Operation, T = ReplyTo<O>>(operation: O, asked: Asked<O>, read?: Reader<O, T>): Promise<Reply<T>> {
  const kept = await (await local()).get('kept', addressFor(operation, asked));
  return kept ? { ok: true, value: readWith(operation, kept.reply, read) } : look(operation, asked, read);
}

const jobPath = (id: string): string => addressOf('readJob', { id });
/** What this browser knows of a job beyond the server's last reply. */
export async function keepJob(job: Job): Promise<void> {
  await (
    await local()
  ).put('kept', { path: jobPath(job.id), at: new Date().toISOString(), reply: JSON.parse(JSON.stringify(job)) as unknown });
}

/** A reply, with one part of it taken out. */
const part = <T, P>(reply: Reply<T>, of: (value: T) => P): Reply<P> => (reply.ok ? { ok: true, value: of(reply.value) } : reply);

/** What screens ask for, by the contract's operations; only what is kept for use without a server goes through `look`. */
export const api = {
  health: (): Promise<Reply<Health>> => look('health', {}),
  people: async (): Promise<Reply<Person[]>> => part(await look('listPeople', {}), ({ people }) => people),
  currentPack: async (): Promise<Reply<string>> => part(await look('currentPack', {}), ({ hash }) => hash),
  pack: (hash: string): Promise<Reply<Pack>> => lookOnce('readPack', { params: { hash } }, parsePack),
  jobs: (query: Asked<'listJobs'>['query']): Promise<Reply<JobCards>> => look('listJobs', { query }, readJobCards),
  /** For what is asked once and not worth keeping: cards by their ids, a search. */
  jobsNow: (query: Asked<'listJobs'>['query']): Promise<Reply<JobCards>> => call('listJobs', { query }, readJobCards),
  similarJobs: async (query: Asked<'similarJobs'>['query']): Promise<Reply<JobCard[]>> =>
    part(await call('similarJobs', { query }), ({ jobs }) => jobs),
  familyCodes: async (family: string): Promise<Reply<CodeCounts['codes']>> =>
    part(await look('familyCodes', { params: { family } }), ({ codes }) => codes),
  job: (id: string): Promise<Reply<Job>> => look('readJob', { params: { id } }),
  takeIn: (body: NewJobInput): Promise<Reply<Job>> => call('takeIn', { body }),
  newestCounts: async (): Promise<Reply<number>> => part(await look('newestCounts', {}), ({ number }) => number),
  counts: (number: number): Promise<Reply<Counts>> => lookOnce('readCounts', { params: { number } }),
  told: async (): Promise<Reply<Told[]>> => part(await look('listTold', {}), ({ told }) => told),
  tell: async (body: NewTold): Promise<Reply<Told[]>> => part(await call('addTold', { body }), ({ told }) => told),
  withdrawTold: async (id: string): Promise<Reply<Told[]>> => part(await call('withdrawTold', { params: { id } }), ({ told }) => told),
  session: (): Promise<Reply<Session>> => call('readSession', {}),
  signIn: (body: Asked<'signIn'>['body']): Promise<Reply<Session>> => call('signIn', { body }),
  signInByPin: (body: Asked<'signInByPin'>['body']): Promise<Reply<Session>> => call('signInByPin', { body }),
  signInToDemo: (person?: string): Promise<Reply<Session>> => call('signInToDemo', { body: person === undefined ? {} : { person } }),
  joinByCode: (body: Asked<'joinByCode'>['body']): Promise<Reply<Session>> => call('joinByCode', { body }),
  signOut: (): Promise<Reply<Session>> => call('signOut', { body: {} }),
  confirmSelf: (body: Asked<'confirmSelf'>['body']): Promise<Reply<Session>> => call('confirmSelf', { body }),
  changePassword: (password: string): Promise<Reply<Session>> => call('changePassword', { body: { password } }),
  setPin: (pin: string | null): Promise<Reply<Session>> => call('setPin', { body: { pin } }),
  trustBench: (name: string): Promise<Reply<Session>> => call('trustBench', { body: { name } }),
  startFactor: () => call('startFactor', { body: {} }),
  confirmFactor: async (code: string): Promise<Reply<string[]>> =>
    part(await call('confirmFactor', { body: { code } }), ({ codes }) => codes),
  passkeys: () => call('listPasskeys', {}),
  offerPasskey: async (): Promise<Reply<PasskeyOptions>> => part(await call('offerPasskey', { body: {} }), ({ options }) => options),
  addPasskey: async (body: Asked<'addPasskey'>['body']): Promise<Reply<string[]>> =>
    part(await call('addPasskey', { body }), ({ codes }) => codes),
  dropPasskey: (id: string) => call('dropPasskey', { body: { id } }),
  askPasskey: async (): Promise<Reply<PasskeyOptions | null>> => part(await call('askPasskey', { body: {} }), ({ options }) => options),
  usePasskey: (passkey: PasskeyUsed): Promise<Reply<Session>> => call('usePasskey', { body: { passkey } }),
  dropFactor: (): Promise<Reply<Session>> => call('dropFactor', { body: {} }),
  accounts: async (): Promise<Reply<Account[]>> => part(await call('listAccounts', {}), ({ accounts }) => accounts),
  addAccount: async (body: Asked<'addAccount'>['body']): Promise<Reply<Account[]>> =>
    part(await call('addAccount', { body }), ({ accounts }) => accounts),
  changeAccount: async (id: string, body: Asked<'changeAccount'>['body']): Promise<Reply<Account[]>> =>
    part(await call('changeAccount', { params: { id }, body }), ({ accounts }) => accounts),
  inviteAccount: (id: string) => call('inviteAccount', { params: { id }, body: {} }),
  benches: async (): Promise<Reply<Bench[]>> => part(await call('listBenches', {}), ({ benches }) => benches),
  /** A ZIP. */
  customerData: (id: string): Promise<Reply<Blob>> => call('customerData', { params: { id } }, (value) => value as Blob),
  eraseCustomer: (id: string, body: EraseCustomer): Promise<Reply<Erased>> => call('eraseCustomer', { params: { id }, body }),
  accountData: (id: string): Promise<Reply<object>> => call('accountData', { params: { id } }),
  eraseAccount: async (id: string): Promise<Reply<Account[]>> =>
    part(await call('eraseAccount', { params: { id }, body: {} }), ({ accounts }) => accounts),
  endBench: async (id: string): Promise<Reply<Bench[]>> =>
    part(await call('endBench', { params: { id }, body: {} }), ({ benches }) => benches),
  audit: async (before?: number): Promise<Reply<AuditLine[]>> =>
    part(await call('listAudit', { query: before === undefined ? {} : { before } }), ({ lines }) => lines),
  paces: async (): Promise<Reply<Paces['people']>> => part(await look('listPaces', {}), ({ people }) => people),
  meter: (): Promise<Reply<MeterState>> => call('meterState', {}),
  readMeter: (body: Asked<'readMeter'>['body']): Promise<Reply<MeterReply>> => call('readMeter', { body }),
  touchProbes: (body: SimulatedProbes): Promise<Reply<SimulatedProbes>> => call('touchProbes', { body }),
  boards: async (): Promise<Reply<BoardSummary[]>> => part(await look('listBoards', {}), ({ boards }) => boards),
  board: (id: string): Promise<Reply<BoardState>> => look('readBoard', { params: { id } }),
  boardChanges: async (id: string): Promise<Reply<BoardState[]>> =>
    part(await look('boardChanges', { params: { id } }), ({ changes }) => changes),
  changeBoard: (id: string, body: ChangeBoard): Promise<Reply<BoardState>> => call('changeBoard', { params: { id }, body }),
  blinkTables: (): Promise<Reply<BlinkTables>> => look('listBlinkTables', {}),
  familyChanges: async (): Promise<Reply<FamilyChanges['changes']>> => part(await look('familyChanges', {}), ({ changes }) => changes),
  changeFamily: async (body: ChangeFamily): Promise<Reply<string>> => part(await call('changeFamily', { body }), ({ hash }) => hash),
  changeBlinkTable: async (body: ChangeBlinkTable): Promise<Reply<string>> =>
    part(await call('changeBlinkTable', { body }), ({ hash }) => hash),
  shop: (): Promise<Reply<ShopState>> => look('readShop', {}),
  changeShop: (body: ShopChange): Promise<Reply<ShopState>> => call('changeShop', { body }),
  searchCustomers: async (name: string, contact: string): Promise<Reply<KnownCustomer[]>> =>
    part(await call('searchCustomers', { body: { name, contact } }), ({ customers }) => customers),
  /** The picture itself is the body: what it is, the server finds out. */
  putPhoto: (id: string, file: Blob): Promise<Reply<Photo>> => call('storePhoto', { params: { id }, file }),
  /** Bytes from `from` to before `to`; none where there are none. Throws NotReached. */
  async imageBytes(id: string, from: number, to: number): Promise<Uint8Array> {
    if (to <= from) return new Uint8Array();
    try {
      const reply = await fetch(addressOf('imageContent', { id }, undefined), { headers: { range: `bytes=${from}-${to - 1}` } });
      if (!reply.ok) throw new NotReached(`status ${reply.status}`);
      return new Uint8Array(await reply.arrayBuffer());
    } catch (error) {
      throw error instanceof NotReached ? error : new NotReached(String(error));
    }
  },
  compareImages: (id: string, other: string): Promise<Reply<ImageComparison>> => call('compareImages', { params: { id, other } }),
  eraseImage: (id: string, body: EraseImage): Promise<Reply<ImageErasure>> => call('eraseImage', { params: { id }, body }),
  imageErasures: (): Promise<Reply<{ erased: ImageErasure[] }>> => call('imageErasures', {}),
  image: (id: string): Promise<Reply<Image>> => call('readImage', { params: { id } }),
  images: async (q?: string): Promise<Reply<Image[]>> =>
    part(await call('listImages', { query: q === undefined ? {} : { q } }), ({ images }) => images),
  imageReceived: async (id: string): Promise<Reply<number>> =>
    part(await call('imageReceived', { params: { id } }), ({ received }) => received),
  sendImage: async (id: string, at: number, file: Blob): Promise<Reply<number>> =>
    part(await call('sendImage', { params: { id }, query: { at }, file }), ({ received }) => received),
  publishImage: (id: string, body: PublishImage): Promise<Reply<Image>> => call('publishImage', { params: { id }, body }),
  flashHistory: (board: string, panel: string | undefined): Promise<Reply<FlashHistory>> =>
    call('flashHistory', { query: { board, ...(panel === undefined ? {} : { panel }) } }),
  programmers: (): Promise<Reply<{ programmers: Programmer[] }>> => call('listProgrammers', {}),
  startRun: (programmer: string, body: StartRun): Promise<Reply<ProgrammerRun>> => call('startRun', { params: { id: programmer }, body }),
  run: (id: string): Promise<Reply<ProgrammerRun>> => call('readRun', { params: { id } }),
  cancelRun: (id: string, by: string): Promise<Reply<ProgrammerRun>> => call('cancelRun', { params: { id }, body: { by } }),
  putOwn: (id: string, body: PutOwn): Promise<Reply<Image>> => call('putOwn', { params: { id }, body }),
  imageFactsBefore: async (id: string): Promise<Reply<ImageFactsBefore['before']>> =>
    part(await call('imageFactsBefore', { params: { id } }), ({ before }) => before),
  combineImages: (id: string, body: CombineImages): Promise<Reply<Combined>> => call('combineImages', { params: { id }, body }),
  sendMessage: (id: string, body: Asked<'sendMessage'>['body']): Promise<Reply<Appended>> => call('sendMessage', { params: { id }, body }),
  stock: (query: Asked<'listStock'>['query']): Promise<Reply<ReplyTo<'listStock'>>> => look('listStock', { query }),
  changeStock: (id: string, body: Asked<'changeStock'>['body']): Promise<Reply<StockState>> =>
    call('changeStock', { params: { id }, body }),
  moveStock: (id: string, body: MoveStock): Promise<Reply<StockState>> => call('moveStock', { params: { id }, body }),
  stockMoves: (id: string): Promise<Reply<StockMoves>> => call('stockMoves', { params: { id } }),
  orders: (): Promise<Reply<Orders>> => look('orders', {}),
  offers: (number: string): Promise<Reply<Offers>> => call('offers', { query: { number } }),
  partPrices: (number: string): Promise<Reply<PartPrices>> => call('partPrices', { query: { number } }),
  /** What was written behind a seq. */
  entriesAfter: (id: string, after: number): Promise<Reply<Appended>> => call('entriesAfter', { params: { id }, query: { after } }),
  append: (id: string, by: string, entries: readonly EntryDraft[]): Promise<Reply<Appended>> =>
    call('append', { params: { id }, body: { by, entries: [...entries] } }),
};
