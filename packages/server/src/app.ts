/** The Express app, built from injected parts; whoever builds it decides where it listens. */
import path from 'node:path';
import type { CustomerLanguage } from '@veglia/contract';
import compression from 'compression';
import staticPacked from 'express-static-gzip';
import express, { type Express, type Request } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { v7 as uuidv7 } from 'uuid';
import { countsAt, listTold, newestSnapshot, tell, withdrawTold } from './counts/counts.ts';
import { ApiError } from './http/apiError.ts';
import { apiPage, apiPagePath } from './http/apiPage.ts';
import { errorHandler } from './http/errorHandler.ts';
import { accountData, eraseAccount } from './personal/colleagues.ts';
import { eraseCustomer, sendCustomerData } from './personal/customers.ts';
import { onlyBytes, onlyJson, onlyOwnHost, onlyOwnPages, onlyPhotoTypes, onlyStorableText, unlessFile } from './http/guards.ts';
import type { Replica } from './database/replica.ts';
import { health, readiness, type Draining } from './http/health.ts';
import type { Hosts } from './http/hosts.ts';
import type { Metrics } from './http/metrics.ts';
import { requestSerializers } from './http/log.ts';
import { sent, serve, type Exchange, type Gate } from './http/serve.ts';
import { boardChanges, changeBoard, listBoards, readBoard } from './boards/boards.ts';
import { append, entriesAfter } from './jobs/ledger.ts';
import { causeOf, exportCase, helpText, paperFacts, readJob, takeIn } from './jobs/jobs.ts';
import { codesOfFamily, listJobs, similarCards } from './jobs/list.ts';
import { searchCustomers } from './customers.ts';
import { compareImages, imageFactsBefore, listImages, mostImageBytes, publishImage, readImage } from './images/images.ts';
import { combineImages } from './images/combine.ts';
import { putOwn } from './images/putOwn.ts';
import { eraseImage, imageErasures } from './images/erase.ts';
import { flashHistory } from './images/history.ts';
import { sendImage } from './images/send.ts';
import { receive, receivedOf } from './images/uploads.ts';
import { mostPhotoBytes, readPhoto, storePhoto } from './files/photos.ts';
import { meterState, readMeter, touchProbes, type BenchMeter } from './meter/meters.ts';
import type { ProgrammerRuns } from './programmer/runs.ts';
import { openApiDocument } from './openapi.ts';
import { label, modification, receipt } from './papers/papers.ts';
import { invoice, languageOf, quote, report } from './papers/customerPapers.ts';
import { technicianSheet } from './papers/technicianPaper.ts';
import { sendMessage } from './messages/messages.ts';
import type { Messenger } from './messages/messenger.ts';
import { changeFamily, listFamilyChanges } from './packs/families.ts';
import { changeBlinkTable, listBlinkTables } from './packs/blinkTables.ts';
import { pdfOf } from './papers/pdf.ts';
import { listPaces, listPeople } from './people.ts';
import { addAccount, changeAccount, endBench, inviteAccount, listAccounts, listBenches } from './accounts/accounts.ts';
import { listAudit, record, type AuditFrom } from './accounts/audit.ts';
import { requireMayWrite } from './accounts/entries.ts';
import { joinByCode } from './accounts/join.ts';
import { changePassword, confirmFactor, dropFactor, setPin, startFactor, trustBench } from './accounts/ownAccount.ts';
import { addPasskey, askPasskey, dropPasskey, listPasskeys, offerPasskey, usePasskey } from './accounts/passkeys.ts';
import type { Door } from './accounts/door.ts';
import { confirmSelf, readSession, signIn, signInByPin, signInToDemo, signOut } from './accounts/signIn.ts';
import { requireAccess, requireOwn, requireWho } from './accounts/who.ts';
import { changeStock, listStock, moveStock, readStock, stockMoves } from './parts/stock.ts';
import { listOrders, partPrices, stockProposals } from './parts/orders.ts';
import { offersFor, type PartsOffers } from './parts/offers.ts';
import { changeShop, readShop } from './shop.ts';
import type { PaperFacts } from './papers/papers.ts';
import type { Store } from './store.ts';

/** As package.json has it. */
export const version = '0.1.0';

/** What the app is built from. */
export interface AppParts {
  readonly store: Store;
  readonly log: Logger;
  readonly door: Door;
  /** The names it answers to. */
  readonly hosts: Hosts;
  /** Where people reach it, without a slash at the end: what the QR codes on papers lead to. Never taken from a request. */
  readonly ownAddress: () => string;
  /** Without it everything is read from the database itself. */
  readonly replica?: Replica | undefined;
  /** Without it nothing is counted. */
  readonly metrics?: Metrics | undefined;
  /** Told by the process once it is on its way out. */
  readonly lifetime?: Draining;
  /** The built web app; left out, the API stands alone. */
  readonly staticDir?: string | undefined;
  readonly meter?: BenchMeter | undefined;
  /** Without them the server has no programmer. */
  readonly runs?: ProgrammerRuns | undefined;
  /** Suppliers of parts that can be asked. */
  readonly suppliers?: readonly PartsOffers[];
  /** Without it nobody is written to. */
  readonly messenger?: Messenger | undefined;
  /** The database began with demo data. */
  readonly demo?: boolean;
}

const mebibyte = 1024 * 1024;

/** The app, not listening yet. */
export function createApp({
  store,
  replica,
  log,
  door,
  hosts,
  ownAddress,
  staticDir,
  lifetime = { draining: false },
  demo = false,
  meter,
  runs,
  suppliers = [],
  messenger,
  metrics,
}: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  // A proxy on this machine says where a request came from and whether by TLS; nobody else is believed.
  app.set('trust proxy', 'loopback');
  if (metrics) app.use(metrics.middleware);
  app.use(
    pinoHttp({
      logger: log,
      genReqId: (_request, response) => {
        const id = uuidv7();
        response.setHeader('x-request-id', id);
        return id;
      },
      serializers: requestSerializers,
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          'default-src': ["'self'"],
          'base-uri': ["'none'"],
          'object-src': ["'none'"],
          'frame-ancestors': ["'none'"],
          'form-action': ["'self'"],
          // The recogniser's engine is WebAssembly that ships with the app; no other code is made at run time.
          'script-src': ["'self'", "'wasm-unsafe-eval'"],
          'worker-src': ["'self'", 'blob:'],
          'style-src': ["'self'"],
          'style-src-attr': ["'unsafe-inline'"],
          'img-src': ["'self'", 'data:', 'blob:'],
          'font-src': ["'self'"],
          'connect-src': ["'self'"],
          'media-src': ["'self'", 'blob:'],
        },
      },
    }),
  );
  // Lists of jobs and packs are text that says the same again and again; pictures and PDFs are packed already and left alone.
  app.use(compression());
  app.use(onlyOwnHost(hosts), onlyOwnPages);
  app.get('/livez', (_request, response) => {
    response.set('cache-control', 'no-store').json({ status: 'live' });
  });
  app.get('/readyz', async (_request, response) => {
    const status = await readiness(store, lifetime);
    response
      .status(status === 'ready' ? 200 : 503)
      .set('cache-control', 'no-store')
      .json({ status });
  });
  app.use(apiPagePath, apiPage());
  // Jobs, papers, case files, photos: nothing of them stays on a disk that somebody else may read. What may stay says so itself.
  app.use('/api', (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  // Who asks comes before any body is read.
  app.use('/api', ...door.middleware);
  // Packed bodies are refused: what a few bytes unpack to is decided by the sender.
  const photo = express.raw({ type: () => true, limit: mostPhotoBytes, inflate: false });
  app.use('/api/photos', onlyPhotoTypes, photo);
  // Read as it comes, by who takes it in.
  app.use('/api', onlyBytes);
  const large = express.json({ limit: mebibyte, inflate: false });
  const small = express.json({ limit: 64 * 1024, inflate: false });
  app.use(
    '/api',
    unlessFile(onlyJson),
    unlessFile((request, response, next) => {
      (/^[/](?:jobs|blink-tables|families|boards)/.test(request.path) ? large : small)(request, response, next);
    }),
  );
  app.use('/api', onlyStorableText);

  const reading = <T>(run: (from: Store) => Promise<T>): Promise<T> => (replica ? replica.read(store, run) : run(store));
  type Asking = {
    readonly params: { readonly id: string };
    readonly query?: { readonly language?: CustomerLanguage | undefined } | undefined;
  };
  const paper =
    (name: string, make: (facts: PaperFacts, language: CustomerLanguage) => Parameters<typeof pdfOf>[0]) =>
    async ({ params: { id }, query }: Asking, { response }: Exchange): Promise<typeof sent> => {
      const facts = await paperFacts(store, id, `${ownAddress()}/jobs/${id}`);
      const made = await pdfOf(make(facts, languageOf(facts, query?.language)));
      response.set('content-disposition', `inline; filename="${name}-${facts.job.number}.pdf"`).type('application/pdf').send(made);
      return sent;
    };
  const theRuns = (): ProgrammerRuns => {
    if (!runs) throw new ApiError('not-found');
    return runs;
  };
  const { accounts } = door;
  const from = (request: Request): AuditFrom => ({ person: requireWho(request).id, address: request.ip });
  const gate: Gate = { may: (operation, request) => requireAccess(store, operation, request), own: requireOwn };
  serve(app, gate, {
    readSession: (_checked, exchange) => readSession(accounts, exchange),
    signIn: ({ body }, exchange) => signIn(accounts, body, exchange),
    signInByPin: ({ body }, exchange) => signInByPin(accounts, body, exchange),
    signInToDemo: ({ body }, exchange) => signInToDemo(accounts, body, exchange),
    joinByCode: ({ body }, exchange) => joinByCode(accounts, body, exchange),
    signOut: (_checked, exchange) => signOut(accounts, exchange),
    confirmSelf: ({ body }, exchange) => confirmSelf(accounts, body, exchange),
    changePassword: ({ body }, exchange) => changePassword(accounts, body, exchange),
    setPin: ({ body }, exchange) => setPin(accounts, body, exchange),
    trustBench: ({ body }, exchange) => trustBench(accounts, body, exchange),
    startFactor: (_checked, exchange) => startFactor(accounts, exchange),
    confirmFactor: ({ body }, exchange) => confirmFactor(accounts, body, exchange),
    dropFactor: (_checked, exchange) => dropFactor(accounts, exchange),
    listPasskeys: (_checked, exchange) => listPasskeys(accounts, exchange),
    offerPasskey: (_checked, exchange) => offerPasskey(accounts, exchange),
    addPasskey: ({ body }, exchange) => addPasskey(accounts, body, exchange),
    dropPasskey: ({ body }, exchange) => dropPasskey(accounts, body, exchange),
    askPasskey: (_checked, exchange) => askPasskey(accounts, exchange),
    usePasskey: ({ body }, exchange) => usePasskey(accounts, body, exchange),
    listAccounts: async () => ({ accounts: await listAccounts(store) }),
    addAccount: async ({ body }, { request }) => ({ accounts: await addAccount(store, body, from(request)) }),
    changeAccount: async ({ params, body }, { request }) => ({ accounts: await changeAccount(store, params.id, body, from(request)) }),
    inviteAccount: ({ params }, { request }) => inviteAccount(store, params.id, from(request)),
    listBenches: async () => ({ benches: await listBenches(store) }),
    endBench: async ({ params }, { request }) => ({ benches: await endBench(store, params.id, from(request)) }),
    customerData: async ({ params }, exchange) => {
      await record(store, 'data-given', from(exchange.request), params.id);
      return sendCustomerData(store, params.id, exchange);
    },
    eraseCustomer: ({ params, body }, { request }) => eraseCustomer(store, params.id, body, requireWho(request).id, from(request)),
    accountData: async ({ params }, { request }) => {
      const data = await accountData(store, params.id);
      await record(store, 'data-given', from(request), params.id);
      return data;
    },
    eraseAccount: async ({ params }, { request }) => ({ accounts: await eraseAccount(store, params.id, from(request)) }),
    listAudit: async ({ query }) => ({ lines: await listAudit(store, query.before) }),
    health: () => health(store, version, demo),
    openApi: () => openApiDocument(version),
    meterState: () => meterState(meter),
    readMeter: ({ body }) => readMeter(meter, body.function, body.range),
    touchProbes: ({ body }) => Promise.resolve(touchProbes(meter, body)),
    listPeople: async () => ({ people: await listPeople(store) }),
    listPaces: () => reading(listPaces),
    readShop: () => readShop(store),
    changeShop: async ({ body }, { request }) => {
      const changed = await changeShop(store, body);
      await record(store, 'shop-changed', from(request), `version ${changed.version}`);
      return changed;
    },
    searchCustomers: async ({ body }) => ({ customers: await reading((from) => searchCustomers(from, body)) }),
    listBlinkTables: () => listBlinkTables(store),
    changeBlinkTable: ({ body }) => changeBlinkTable(store, body),
    familyChanges: () => listFamilyChanges(store),
    changeFamily: ({ body }) => changeFamily(store, body),
    listBoards: async () => ({ boards: await listBoards(store) }),
    readBoard: ({ params }) => readBoard(store, params.id),
    changeBoard: ({ params, body }) => changeBoard(store, params.id, body),
    boardChanges: async ({ params }) => ({ changes: await boardChanges(store, params.id) }),
    familyCodes: async ({ params }) => ({ codes: await reading((from) => codesOfFamily(from, params.family)) }),
    currentPack: async () => ({ hash: await store.packs.currentHash() }),
    readPack: async ({ params }, { response }) => {
      const document = await store.packs.document(params.hash);
      response.set('cache-control', 'public, max-age=31536000, immutable');
      return document;
    },
    newestCounts: async () => ({ number: await newestSnapshot(store) }),
    readCounts: async ({ params }, { response }) => {
      const counts = await countsAt(store, params.number);
      response.set('cache-control', 'private, max-age=31536000, immutable');
      return counts ?? {};
    },
    listTold: async () => ({ told: await listTold(store) }),
    addTold: async ({ body }) => ({ told: await tell(store, body) }),
    withdrawTold: async ({ params }) => ({ told: await withdrawTold(store, params.id) }),
    listJobs: async ({ query }, { request }) => {
      const list = await reading((from) => listJobs(from, query));
      if (list.unreadable.length > 0) request.log.warn({ jobs: list.unreadable.map(({ jobId }) => jobId) }, 'cards that can’t be read');
      return list;
    },
    similarJobs: async ({ query }) => ({ jobs: await reading((from) => similarCards(from, query)) }),
    takeIn: async ({ body }, { request, response }) => {
      await requireMayWrite(store, requireWho(request).role, body.entries);
      const job = await takeIn(store, body, uuidv7);
      response.location(`/api/jobs/${job.id}`);
      return job;
    },
    readJob: ({ params }) => readJob(store, params.id),
    exportCase: ({ params }) => exportCase(store, params.id),
    label: paper('label', label),
    receipt: paper('receipt', receipt),
    quotePaper: async (asked, exchange) => {
      const cause = await causeOf(store, asked.params.id);
      return paper('quote', (facts, language) => quote(facts, language, cause))(asked, exchange);
    },
    reportPaper: paper('report', report),
    invoicePaper: paper('invoice', invoice),
    technicianPaper: paper('readings', technicianSheet),
    helpText: async ({ params }, { response }) => {
      response.type('text/plain').send(await helpText(store, params.id));
      return sent;
    },
    sendMessage: ({ params, body }) => sendMessage(store, messenger, params.id, body),
    modificationLabel: paper('modification', modification),
    storePhoto: ({ params }, { request }) => {
      const bytes: unknown = request.body;
      return storePhoto(store, params.id, Buffer.isBuffer(bytes) ? bytes : Buffer.alloc(0));
    },
    readPhoto: async ({ params }, { response }) => {
      const { file, bytes } = await reading((from) => readPhoto(from, params.id));
      // Whatever is inside, it is shown as the picture it was found to be and as nothing else.
      response.set('x-content-type-options', 'nosniff').type(file.mediaType).send(bytes);
      return sent;
    },
    listImages: async ({ query }) => ({ images: await reading((from) => listImages(from, query.q)) }),
    imageReceived: async ({ params }) => ({ received: await receivedOf(store, params.id) }),
    sendImage: async ({ params, query }, { request }) => ({ received: await receive(store, params.id, query.at, request, mostImageBytes) }),
    publishImage: ({ params, body }) => publishImage(store, params.id, body),
    readImage: ({ params }) => readImage(store, params.id),
    imageContent: async ({ params }, exchange) => {
      await sendImage(store, params.id, exchange);
      return sent;
    },
    eraseImage: async ({ params, body }, { request }) => {
      const erased = await eraseImage(store, params.id, body);
      await record(store, 'image-erased', from(request), params.id);
      return erased;
    },
    imageErasures: async () => ({ erased: await imageErasures(store) }),
    flashHistory: ({ query }) => reading((from) => flashHistory(from, query.board, query.panel)),
    listProgrammers: async () => ({ programmers: (await runs?.list()) ?? [] }),
    startRun: ({ params, body }) => theRuns().start(params.id, body),
    readRun: ({ params }) => theRuns().read(params.id),
    cancelRun: ({ params }) => theRuns().cancel(params.id),
    combineImages: ({ params, body }) => combineImages(store, params.id, body),
    putOwn: ({ params, body }) => putOwn(store, params.id, body),
    imageFactsBefore: async ({ params }) => ({ before: await imageFactsBefore(store, params.id) }),
    compareImages: ({ params }) => compareImages(store, params.id, params.other),
    listStock: ({ query }) => listStock(store, query),
    readStock: ({ params }) => readStock(store, params.id),
    changeStock: ({ params, body }) => changeStock(store, params.id, body),
    moveStock: ({ params, body }) => moveStock(store, params.id, body),
    stockMoves: async ({ params }) => ({ moves: await stockMoves(store, params.id) }),
    orders: async () => ({ jobs: await listOrders(store), proposed: await stockProposals(store) }),
    offers: ({ query }) => offersFor(store, suppliers, query.number),
    partPrices: async ({ query }) => ({ prices: await partPrices(store, query.number) }),
    entriesAfter: ({ params, query }) => entriesAfter(store, params.id, query.after),
    append: async ({ params, body }, { request }) => {
      await requireMayWrite(store, requireWho(request).role, body.entries);
      return append(store, params.id, body.by, body.entries);
    },
  });
  app.use('/api', () => {
    throw new ApiError('not-found');
  });

  if (staticDir !== undefined) {
    // Packed when the app is built: packing them for each reader took a third of a second of every first visit.
    app.use(
      '/assets',
      staticPacked(path.join(staticDir, 'assets'), {
        enableBrotli: true,
        orderPreference: ['br', 'gzip'],
        index: false,
        serveStatic: { immutable: true, maxAge: '1y', fallthrough: false },
      }),
    );
    app.use(
      express.static(staticDir, {
        index: false,
        // The worker that keeps the app is looked at afresh, or an old app would stay for ever.
        setHeaders: (response, file) => {
          if (/(?:sw|registerSW)[.]js$|[.]webmanifest$/.test(file)) response.setHeader('cache-control', 'no-cache');
        },
      }),
    );
    app.get('/{*path}', (_request, response) => {
      response.set('cache-control', 'no-cache').sendFile('index.html', { root: staticDir });
    });
  }
  app.use(errorHandler());
  return app;
}
