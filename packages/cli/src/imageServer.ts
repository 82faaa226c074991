/** `veglia image add|export|fit`: the images of a running server. */
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { link, open, rm, stat } from 'node:fs/promises';
import {
  addressOf,
  imageFactsSchema,
  ownHeader,
  problemDocumentSchema,
  routes,
  type Image,
  type Operation,
  type RouteDescription,
} from '@veglia/contract';
import { hitsAndMisses, InputRefused, judgeFit, type Fit, type FitAim } from '@veglia/core';
import type { z } from 'zod';
import { opened, refused } from './image.ts';

/** Bytes sent at once. */
const pieceBytes = 8 * 2 ** 20;
/** A file beyond this is sent as it is, without being read into memory; text formats are never that long. */
const mostRead = 2 ** 30;

type ReplyOf<O extends Operation> = z.output<(typeof routes)[O]['reply']>;
interface Asked {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: Readonly<Record<string, string | number>>;
  readonly body?: unknown;
  readonly bytes?: Uint8Array<ArrayBuffer>;
}

/** Of the session on each server. */
const cookies = new Map<string, string>();

/**
 * Signs in: as `VEGLIA_USER` (or whoever is named) with `VEGLIA_PASSWORD`, and `VEGLIA_CODE` where there is a second factor; never by an argument,
 * which others could read. Without a password: as somebody of a demo. Throws InputRefused.
 */
async function signInTo(server: string, named?: string): Promise<void> {
  const { VEGLIA_USER: user, VEGLIA_PASSWORD: password, VEGLIA_CODE: code } = process.env;
  const keep = (response: Response): void =>
    void cookies.set(
      server,
      response.headers
        .getSetCookie()
        .map((one) => one.split(';', 1)[0])
        .join('; '),
    );
  if (password !== undefined) {
    const name = user ?? named ?? '';
    keep(await respond(server, 'signIn', { body: { name, password, ...(code === undefined ? {} : { code }) } }));
    return;
  }
  keep(await respond(server, 'signInToDemo', { body: {} }));
  if (named !== undefined) keep(await respond(server, 'signInToDemo', { body: { person: await personNamed(server, named) } }));
}

/** Throws InputRefused where the server isn't reached or refuses, with its words. */
async function respond(
  server: string,
  operation: Operation,
  { params, query, body, bytes }: Asked,
  headers: Record<string, string> = {},
): Promise<Response> {
  const { method }: RouteDescription = routes[operation];
  const address = new URL(addressOf(operation, params, query), server);
  let response: Response;
  try {
    response = await fetch(address, {
      method: method.toUpperCase(),
      headers: {
        ...headers,
        cookie: cookies.get(server) ?? '',
        ...(method === 'get' ? {} : { [ownHeader]: '1', 'content-type': bytes ? 'application/octet-stream' : 'application/json' }),
      },
      ...(bytes ? { body: bytes } : body === undefined ? {} : { body: JSON.stringify(body) }),
    });
  } catch (error) {
    throw refused('--server', 'a running server', `${server}: ${(error as Error).message}`);
  }
  if (response.ok) return response;
  const problem = problemDocumentSchema.safeParse(await response.json().catch(() => undefined));
  throw refused(operation, 'a request the server takes', problem.success ? problem.data.title : `status ${response.status}`);
}
async function ask<O extends Operation>(server: string, operation: O, asked: Asked = {}): Promise<ReplyOf<O>> {
  const response = await respond(server, operation, asked);
  return routes[operation].reply.parse(await response.json()) as ReplyOf<O>;
}

async function personNamed(server: string, name: string): Promise<string> {
  const { people } = await ask(server, 'listPeople');
  const found = people.find((one) => one.name.toLowerCase() === name.trim().toLowerCase());
  if (!found) throw refused('--by', people.map((one) => one.name).join(', '), name);
  return found.id;
}

/** What is said of an image on the command line. */
export interface AddOptions {
  readonly server: string;
  readonly by: string;
  readonly id: string;
  readonly facts: Readonly<Record<string, unknown>>;
}

/** Sends a file and makes it an image; called again with the same id, it goes on where it was broken off. Throws InputRefused. */
export async function imageAdd(file: string, { server, by, id, facts }: AddOptions): Promise<Image> {
  const said = imageFactsSchema.safeParse(facts);
  if (!said.success)
    throw new InputRefused(
      said.error.issues.map((issue) => ({ code: 'schema', where: issue.path.join('.') || 'facts', expected: issue.message })),
    );
  await signInTo(server, by);
  const person = await personNamed(server, by);
  let size: number;
  try {
    ({ size } = await stat(file));
  } catch (error) {
    throw new InputRefused([{ code: 'not-readable', where: file, expected: (error as Error).message }]);
  }
  const bytes = size > mostRead ? undefined : (await opened(file)).bytes;
  const length = bytes?.length ?? size;
  const hash = createHash('sha256');
  const { received } = await ask(server, 'imageReceived', { params: { id } });
  let at = 0;
  for await (const piece of bytes ? cut(bytes) : createReadStream(file, { highWaterMark: pieceBytes })) {
    const part = new Uint8Array(piece as Uint8Array);
    hash.update(part);
    const from = Math.max(at, Math.min(received, at + part.length));
    if (from < at + part.length) await ask(server, 'sendImage', { params: { id }, query: { at: from }, bytes: part.subarray(from - at) });
    at += part.length;
  }
  return ask(server, 'publishImage', { params: { id }, body: { by: person, size: length, sha256: hash.digest('hex'), facts: said.data } });
}
function* cut(bytes: Uint8Array): Generator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += pieceBytes) yield bytes.subarray(at, at + pieceBytes);
}

/** One of the server's, by its id or the beginning of a hash. */
async function imageNamed(server: string, which: string): Promise<Image> {
  if (/^[0-9a-f-]{36}$/.test(which)) return ask(server, 'readImage', { params: { id: which } });
  const { images } = await ask(server, 'listImages', { query: { q: which } });
  const found = images.filter(({ sha256, crc32, md5 }) => [sha256, crc32, md5].some((one) => one.startsWith(which.toLowerCase())));
  const hashes = new Set(found.map(({ sha256 }) => sha256));
  const [first] = found;
  if (!first || hashes.size > 1)
    throw refused('image', hashes.size > 1 ? 'a longer piece of its hash' : 'an id or the beginning of a hash', which);
  return first;
}

/**
 * Fetches an image into a file, never over one. What was broken off stands in `<file>.part` and is gone on with; the file is there once its SHA-256 is
 * right. Throws InputRefused.
 */
export async function imageExport(which: string, file: string, server: string): Promise<object> {
  await signInTo(server);
  const image = await imageNamed(server, which);
  const part = `${file}.part`;
  if (await stat(file).catch(() => undefined)) throw refused(file, 'a file that is not there yet');
  const hash = createHash('sha256');
  const out = await open(part, 'a+').catch((error: unknown) => {
    throw refused(part, 'a file that can be written', (error as Error).message);
  });
  try {
    let at = 0;
    for await (const before of out.createReadStream({ autoClose: false, start: 0 })) {
      hash.update(before as Buffer);
      at += (before as Buffer).length;
    }
    if (at < image.size) {
      const response = await respond(server, 'imageContent', { params: { id: image.id } }, { range: `bytes=${at}-` });
      try {
        for await (const piece of response.body ?? []) {
          hash.update(piece as Uint8Array);
          await out.appendFile(piece);
        }
      } catch (error) {
        throw refused(part, 'the whole image; what arrived is kept: call again to go on', (error as Error).message);
      }
    }
    await out.sync();
  } finally {
    await out.close();
  }
  const sha256 = hash.digest('hex');
  if (sha256 !== image.sha256) {
    await rm(part);
    throw refused(file, `SHA-256 ${image.sha256}`, `${sha256}; fetch it again`);
  }
  // Never over a file that has come there meanwhile.
  await link(part, file).catch((error: unknown) => {
    throw refused(file, 'a file that is not there yet', (error as Error).message);
  });
  await rm(part);
  return { file, size: image.size, sha256, facts: image.facts };
}

/** The server's images for one memory, those that fit first. Throws InputRefused. */
export async function imageFit(aim: FitAim, server: string): Promise<readonly ({ id: string; name: string; sha256: string } & Fit)[]> {
  await signInTo(server);
  const { images } = await ask(server, 'listImages');
  const trials = aim.board === undefined ? [] : (await ask(server, 'flashHistory', { query: historyOf(aim.board, aim.panel) })).trials;
  const order = { fits: 0, unsure: 1, 'does-not-fit': 2 } as const;
  return images
    .filter(({ facts }) => facts.memory === aim.memory && facts.area === aim.area)
    .map(({ id, sha256, size, facts }) => ({
      id,
      name: facts.name,
      sha256,
      ...judgeFit(aim, {
        ...facts,
        bytes: size,
        source: facts.source === 'own-set' ? 'own-library' : facts.source,
        doubtfulBytes: facts.reconstructed?.doubtfulBytes,
        own: false,
        ...hitsAndMisses(sha256, aim, trials),
      }),
    }))
    .toSorted((a, b) => order[a.fit] - order[b.fit]);
}
const historyOf = (board: string, panel: string | undefined): Record<string, string> => ({
  board,
  ...(panel === undefined ? {} : { panel }),
});

/** Options that say what an image is, or has to fit. */
export interface FactOptions {
  readonly memory: string;
  readonly area: string;
  readonly name?: string;
  readonly source?: string;
  readonly chip?: string;
  readonly board?: string;
  readonly revision?: string;
  readonly panel?: string;
  readonly resolution?: string;
  readonly region?: string;
  readonly companion?: string;
}
/** Throws InputRefused where the resolution is none. */
export function factsOf({
  memory,
  area,
  name,
  source,
  chip,
  board,
  revision,
  panel,
  resolution,
  region,
  companion,
}: FactOptions): Record<string, unknown> {
  const [, width, height] = /^(\d{2,5})[x×](\d{2,5})$/.exec(resolution ?? '') ?? [];
  if (resolution !== undefined && width === undefined) throw refused('--resolution', 'width and height: 1920x1080', resolution);
  const facts = { memory, area, name, source, chip, board, revision, panel, region, companion };
  return {
    ...Object.fromEntries(Object.entries(facts).filter(([, value]) => value !== undefined)),
    ...(width === undefined ? {} : { resolution: [Number(width), Number(height)] }),
  };
}
