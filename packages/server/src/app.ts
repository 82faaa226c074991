/** The Express app, built from injected parts; whoever builds it decides where it listens. */
import path from 'node:path';
import {
  afterQuery,
  appendSchema,
  changeBlinkTableSchema,
  countsParams,
  customerSearchSchema,
  jobParams,
  newJobSchema,
  newToldSchema,
  packParams,
  personSchema,
  shopChangeSchema,
} from '@veglia/contract';
import { InputRefused, problemsOfSchema } from '@veglia/core';
import express, { type Express } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { v7 as uuidv7 } from 'uuid';
import type { z } from 'zod';
import { countsAt, listTold, newestSnapshot, tell, withdrawTold } from './counts/counts.ts';
import { ApiError } from './http/apiError.ts';
import { errorHandler } from './http/errorHandler.ts';
import { onlyJson, onlyOwnHost, onlyOwnPages, onlyPhotoTypes, onlyStorableText } from './http/guards.ts';
import { health, readiness, type Draining } from './http/health.ts';
import type { Hosts } from './http/hosts.ts';
import { requestSerializers } from './http/log.ts';
import { append, entriesAfter } from './jobs/ledger.ts';
import { exportCase, listJobs, paperFacts, readJob, takeIn } from './jobs/jobs.ts';
import { searchCustomers } from './customers.ts';
import { mostPhotoBytes, readPhoto, storePhoto } from './files/photos.ts';
import { openApiDocument } from './openapi.ts';
import { label, receipt } from './papers/papers.ts';
import { changeBlinkTable, listBlinkTables } from './packs/blinkTables.ts';
import { pdfOf } from './papers/pdf.ts';
import { addPerson, listPeople } from './people.ts';
import { changeShop, readShop } from './shop.ts';
import type { Store } from './store.ts';

export const version = '0.1.0';

export interface AppParts {
  readonly store: Store;
  readonly log: Logger;
  /** The names it answers to. */
  readonly hosts: Hosts;
  /** Where people reach it, without a slash at the end: what the QR codes on papers lead to. Never taken from a request. */
  readonly ownAddress: () => string;
  /** Told by the process once it is on its way out. */
  readonly lifetime?: Draining;
  /** The built web app; left out, the API stands alone. */
  readonly staticDir?: string | undefined;
}

/** Parses at the boundary, collecting every issue; `root` names the part of the request. */
function parse<T>(schema: z.ZodType<T>, value: unknown, root: string): T {
  const result = schema.safeParse(value);
  if (!result.success) throw new InputRefused(problemsOfSchema(result.error.issues, root));
  return result.data;
}

const mebibyte = 1024 * 1024;

export function createApp({ store, log, hosts, ownAddress, staticDir, lifetime = { draining: false } }: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
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
  // Jobs, papers, case files, photos: nothing of them stays on a disk that somebody else may read. What may stay says so itself.
  app.use('/api', (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  // Packed bodies are refused: what a few bytes unpack to is decided by the sender.
  app.put(
    '/api/photos/:id',
    onlyPhotoTypes,
    express.raw({ type: () => true, limit: mostPhotoBytes, inflate: false }),
    async (request, response) => {
      const { id } = parse(jobParams, request.params, 'path');
      const bytes: unknown = request.body;
      response.status(201).json(await storePhoto(store, id, Buffer.isBuffer(bytes) ? bytes : Buffer.alloc(0)));
    },
  );
  const large = express.json({ limit: mebibyte, inflate: false });
  const small = express.json({ limit: 64 * 1024, inflate: false });
  app.use('/api', onlyJson, (request, response, next) => {
    (/^[/](?:jobs|blink-tables)/.test(request.path) ? large : small)(request, response, next);
  });
  app.use('/api', onlyStorableText);

  app.get('/api/health', async (_request, response) => {
    response.json(await health(store, version));
  });
  app.get('/api/openapi.json', (_request, response) => {
    response.json(openApiDocument(version));
  });
  app.get('/api/people', async (_request, response) => {
    response.json({ people: await listPeople(store) });
  });
  app.post('/api/people', async (request, response) => {
    response.status(201).json({ people: await addPerson(store, parse(personSchema, request.body, '')) });
  });
  app.get('/api/shop', async (_request, response) => {
    response.json(await readShop(store));
  });
  app.put('/api/shop', async (request, response) => {
    response.json(await changeShop(store, parse(shopChangeSchema, request.body, '')));
  });
  app.post('/api/customers/search', async (request, response) => {
    response.json({ customers: await searchCustomers(store, parse(customerSearchSchema, request.body, '')) });
  });
  app.get('/api/packs/current', async (_request, response) => {
    response.json({ hash: await store.packs.currentHash() });
  });
  app.get('/api/blink-tables', async (_request, response) => {
    response.json(await listBlinkTables(store));
  });
  app.post('/api/blink-tables', async (request, response) => {
    response.status(201).json(await changeBlinkTable(store, parse(changeBlinkTableSchema, request.body, '')));
  });
  app.get('/api/packs/:hash', async (request, response) => {
    const { hash } = parse(packParams, request.params, 'path');
    const document = await store.packs.document(hash);
    response.set('cache-control', 'public, max-age=31536000, immutable').json(document);
  });
  app.get('/api/counts/newest', async (_request, response) => {
    response.json({ number: await newestSnapshot(store) });
  });
  app.get('/api/counts/:number', async (request, response) => {
    const counts = await countsAt(store, parse(countsParams, request.params, 'path').number);
    response.set('cache-control', 'private, max-age=31536000, immutable').json(counts);
  });
  app.get('/api/told', async (_request, response) => {
    response.json({ told: await listTold(store) });
  });
  app.post('/api/told', async (request, response) => {
    response.status(201).json({ told: await tell(store, parse(newToldSchema, request.body, '')) });
  });
  app.post('/api/told/:id/withdraw', async (request, response) => {
    response.json({ told: await withdrawTold(store, parse(jobParams, request.params, 'path').id) });
  });
  app.get('/api/jobs', async (request, response) => {
    const list = await listJobs(store);
    if (list.unreadable.length > 0) request.log.warn({ jobs: list.unreadable.map(({ jobId }) => jobId) }, 'cards that can’t be read');
    response.json(list);
  });
  app.post('/api/jobs', async (request, response) => {
    const job = await takeIn(store, parse(newJobSchema, request.body, ''), uuidv7);
    response.status(201).location(`/api/jobs/${job.id}`).json(job);
  });
  app.get('/api/jobs/:id', async (request, response) => {
    response.json(await readJob(store, parse(jobParams, request.params, 'path').id));
  });
  app.get('/api/jobs/:id/case', async (request, response) => {
    response.json(await exportCase(store, parse(jobParams, request.params, 'path').id));
  });
  for (const [name, make] of [
    ['label', label],
    ['receipt', receipt],
  ] as const) {
    app.get(`/api/jobs/:id/${name}.pdf`, async (request, response) => {
      const { id } = parse(jobParams, request.params, 'path');
      const address = `${ownAddress()}/jobs/${id}`;
      const facts = await paperFacts(store, id, address);
      const pdf = await pdfOf(make(facts));
      response.set('content-disposition', `inline; filename="${name}-${facts.job.number}.pdf"`).type('application/pdf').send(pdf);
    });
  }
  app.get('/api/photos/:id', async (request, response) => {
    const { file, bytes } = await readPhoto(store, parse(jobParams, request.params, 'path').id);
    // Whatever is inside, it is shown as the picture it was found to be and as nothing else.
    response.set('x-content-type-options', 'nosniff').type(file.mediaType).send(bytes);
  });
  app.get('/api/jobs/:id/entries', async (request, response) => {
    const { id } = parse(jobParams, request.params, 'path');
    response.json(await entriesAfter(store, id, parse(afterQuery, request.query, 'query').after));
  });
  app.post('/api/jobs/:id/entries', async (request, response) => {
    const { id } = parse(jobParams, request.params, 'path');
    const { by, entries } = parse(appendSchema, request.body, '');
    response.json(await append(store, id, by, entries));
  });
  app.use('/api', () => {
    throw new ApiError('not-found');
  });

  if (staticDir !== undefined) {
    app.use('/assets', express.static(path.join(staticDir, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
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
