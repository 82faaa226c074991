/** What a browser is remembered by beside its session: as a trusted bench, and as one in which somebody signed in before. */
import { createHmac, timingSafeEqual } from 'node:crypto';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import { newToken } from './secrets.ts';

const yearMs = 365 * 86_400_000;
/** People of one browser; more would make a long cookie. */
const mostKnown = 12;

/** Reads and sets these cookies. */
export interface Browser {
  benchToken(request: Request): string | undefined;
  setBench(response: Response, token: string): void;
  /** A number of its own for this person in this browser; undefined where they never signed in here. */
  knownAs(request: Request, person: string): string | undefined;
  know(request: Request, response: Response, person: string): void;
}

/** `secret` signs, so that nobody makes up a browser that is known. */
export function browserOf(secret: string, encrypted: boolean): Browser {
  const names = encrypted
    ? { bench: '__Host-veglia-bench', known: '__Host-veglia-known' }
    : { bench: 'veglia-bench', known: 'veglia-known' };
  const options = { httpOnly: true, sameSite: 'strict', secure: encrypted, path: '/', maxAge: yearMs } as const;
  const cookies = (request: Request): Record<string, string | undefined> => parse(request.headers.cookie ?? '');
  const sign = (text: string): string => createHmac('sha256', secret).update(`known ${text}`).digest('base64url');
  function read(request: Request): { person: string; mark: string; signed: string }[] {
    return (cookies(request)[names.known] ?? '').split('~').flatMap((one) => {
      const [person = '', mark = '', signature = ''] = one.split('.');
      const right = Buffer.from(sign(`${person} ${mark}`));
      const given = Buffer.from(signature);
      return right.length === given.length && timingSafeEqual(right, given) ? [{ person, mark, signed: one }] : [];
    });
  }
  return {
    benchToken: (request) => cookies(request)[names.bench],
    setBench: (response, token) => void response.cookie(names.bench, token, options),
    knownAs: (request, person) => read(request).find((one) => one.person === person)?.mark,
    know(request, response, person) {
      const mark = newToken().slice(0, 22);
      const others = read(request).filter((one) => one.person !== person);
      const signed = `${person}.${mark}.${sign(`${person} ${mark}`)}`;
      response.cookie(names.known, [signed, ...others.map((one) => one.signed)].slice(0, mostKnown).join('~'), options);
    },
  };
}
