/** The one place where an error becomes a reply: RFC 9457 problem documents. */
import { errorStatus, problemMediaType, problemSentence, words, type ErrorCode, type ProblemDocument } from '@veglia/contract';
import { InputRefused, type Problem } from '@veglia/core';
import type { ErrorRequestHandler, Request } from 'express';
import { ConnectionAcquireTimeoutError, ConnectionError } from 'sequelize';
import { isLostRace } from './again.ts';
import { ApiError } from './apiError.ts';

/** PostgreSQL's own words for "going away" and "not yet there", classes 08 and 57P. */
const awayCodes = new Set(['57P01', '57P02', '57P03', '08000', '08003', '08006', 'ECONNREFUSED', 'ECONNRESET', 'EPIPE']);

/** Whether an error means that the database can't be reached, in whatever it is wrapped. */
export function isDatabaseUnavailable(error: unknown): boolean {
  if (error instanceof ConnectionError || error instanceof ConnectionAcquireTimeoutError) return true;
  if (!(error instanceof Error)) return false;
  const { original } = error as { original?: unknown };
  const inner = original instanceof Error ? original : error;
  const { code } = inner as { code?: unknown };
  return (
    (typeof code === 'string' && awayCodes.has(code)) ||
    /Connection terminated|Client has encountered a connection error/.test(inner.message)
  );
}

const codeOfStatus = new Map<number, ErrorCode>([
  [404, 'not-found'],
  [412, 'precondition-failed'],
  [413, 'too-large'],
  [415, 'wrong-media-type'],
  [416, 'range-not-satisfiable'],
]);

function classify(error: unknown): { code: ErrorCode; problems: readonly Problem[] } {
  if (error instanceof ApiError) return { code: error.code, problems: error.problems };
  if (error instanceof InputRefused) return { code: 'bad-request', problems: error.problems };
  const { type, status } = error as { type?: unknown; status?: unknown };
  if (type === 'entity.parse.failed') return { code: 'not-json', problems: [] };
  if (isDatabaseUnavailable(error)) return { code: 'database-unavailable', problems: [] };
  if (isLostRace(error)) return { code: 'entry-conflict', problems: [] };
  // What Express and its parsers refuse carries the status it should have; no other error has one.
  if (typeof status === 'number' && status >= 400 && status < 500) return { code: codeOfStatus.get(status) ?? 'bad-request', problems: [] };
  return { code: 'internal', problems: [] };
}

/** An RFC 9457 problem document in English; `problems` one sentence each. */
export function problemDocument(code: ErrorCode, requestId: string, problems: readonly Problem[] = []): ProblemDocument {
  return {
    type: `urn:veglia:error:${code}`,
    title: words.en.error[code],
    status: errorStatus[code],
    code,
    requestId,
    ...(problems.length > 0
      ? {
          problems: problems.map((problem) => ({ code: problem.code, where: problem.where, sentence: problemSentence(problem, words.en) })),
        }
      : {}),
  };
}

/** Every error as a problem document; only our own bugs are logged, as 500. */
export function errorHandler(): ErrorRequestHandler {
  // Express tells an error handler by its four parameters.
  return (error: unknown, request: Request, response, _next) => {
    const { code, problems } = classify(error);
    const requestId = typeof request.id === 'string' ? request.id : '';
    if (error instanceof ApiError && error.afterSeconds !== undefined) response.set('retry-after', String(error.afterSeconds));
    if (code === 'internal') request.log.error({ err: error }, 'request failed');
    response
      .status(errorStatus[code])
      .type(problemMediaType)
      .json(problemDocument(code, requestId, problems));
  };
}
