/** What a request must show before any route sees it. */
import { ownHeader } from '@veglia/contract';
import { InputRefused } from '@veglia/core';
import type { Request, RequestHandler } from 'express';
import { ApiError } from './apiError.ts';
import type { Hosts } from './hosts.ts';

/** Throws wrong-host (421) for a name that is not this server's. */
export function onlyOwnHost(hosts: Hosts): RequestHandler {
  return (request, _response, next) => {
    if (!hosts.answersTo(request.headers.host)) throw new ApiError('wrong-host');
    next();
  };
}

const harmless = new Set(['GET', 'HEAD', 'OPTIONS']);

/**
 * Throws cross-site (403) unless a request that changes something comes from a page of this server or from a program that says so: a
 * form or an image of another page can set no header of its own, and a browser asks before it lets a script of another page do it.
 */
export const onlyOwnPages: RequestHandler = (request, _response, next) => {
  const fromOwnPage = request.headers['sec-fetch-site'] === 'same-origin';
  if (!harmless.has(request.method) && !fromOwnPage && request.headers[ownHeader] === undefined) throw new ApiError('cross-site');
  next();
};

/** Throws wrong-media-type (415) for a body that is not said to be JSON: what a plain form can send is never read as JSON. */
export const onlyJson: RequestHandler = (request, _response, next) => {
  const type = request.headers['content-type'] ?? '';
  const hasBody =
    request.headers['content-length'] !== undefined
      ? request.headers['content-length'] !== '0'
      : request.headers['transfer-encoding'] !== undefined;
  if (!harmless.has(request.method) && hasBody && !/^application\/json\s*(?:;|$)/i.test(type)) throw new ApiError('wrong-media-type');
  next();
};

/** Throws wrong-media-type (415) for an upload that is not said to be bytes or a picture; what it is, its first bytes tell. */
export const onlyPhotoTypes: RequestHandler = (request, _response, next) => {
  if (!harmless.has(request.method) && !/^(?:image[/]|application[/]octet-stream)/i.test(request.headers['content-type'] ?? ''))
    throw new ApiError('wrong-media-type');
  next();
};

const takesBytes = (request: Request): boolean => request.method === 'PUT' && /^[/]images[/][^/]+[/]content$/.test(request.path);

/** Throws wrong-media-type (415) for the bytes of an image that are not said to be bytes. */
export const onlyBytes: RequestHandler = (request, _response, next) => {
  if (takesBytes(request) && !/^application[/]octet-stream/i.test(request.headers['content-type'] ?? ''))
    throw new ApiError('wrong-media-type');
  next();
};

/** The same, but for a body that was read as a file, or is read as it comes. */
export const unlessFile =
  (handler: RequestHandler): RequestHandler =>
  (request, response, next) => {
    if (Buffer.isBuffer(request.body) || takesBytes(request)) next();
    else return handler(request, response, next);
  };

/** Nothing of ours is nested deeper; what is would end a recursive reader. */
const deepest = 40;

/**
 * Throws bad-request for text that a database can't hold: the character NUL and halves of surrogate pairs, in values and in names of
 * fields. Refused and not changed, since what is stored is to be what was typed.
 */
export const onlyStorableText: RequestHandler = (request, _response, next) => {
  const body: unknown = Buffer.isBuffer(request.body) ? undefined : request.body;
  const open: { value: unknown; where: string; depth: number }[] = [
    { value: body, where: '', depth: 0 },
    { value: request.query, where: 'query', depth: 0 },
  ];
  const refuse = (where: string): never => {
    throw new InputRefused([{ code: 'bad-character', where }]);
  };
  for (let one = open.pop(); one; one = open.pop()) {
    const { value, where, depth } = one;
    if (typeof value === 'string' && !storable(value)) refuse(where);
    if (typeof value !== 'object' || value === null) continue;
    if (depth > deepest) throw new InputRefused([{ code: 'schema', where, expected: `at most ${deepest} levels` }]);
    for (const [key, inner] of Object.entries(value)) {
      if (!storable(key)) refuse(where);
      open.push({ value: inner, where: where === '' ? key : `${where}.${key}`, depth: depth + 1 });
    }
  }
  next();
};

/** A high half without its low one, or the other way round, is what the `u` flag sees as a surrogate by itself. */
const unstorable = /\0|\p{Surrogate}/u;
function storable(text: string): boolean {
  return !unstorable.test(text);
}
