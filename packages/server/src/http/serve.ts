/** Turns the contract's table of routes into Express routes: parse, call the use case, reply with what it returns. */
import { routes, type Checked, type Operation, type ReplyTo, type RouteDescription } from '@veglia/contract';
import { InputRefused, problemsOfSchema } from '@veglia/core';
import type { Express, Request, Response } from 'express';
import type { z } from 'zod';

/** Parses at the boundary, collecting every issue; `root` names the part of the request. Throws InputRefused. */
export function parse<T>(schema: z.ZodType<T>, value: unknown, root: string): T {
  const result = schema.safeParse(value);
  if (!result.success) throw new InputRefused(problemsOfSchema(result.error.issues, root));
  return result.data;
}

/** What a handler may look at or set beyond the checked parts: headers, the log, files sent and received. */
export interface Exchange {
  readonly request: Request;
  readonly response: Response;
}

/** What a handler returns that has answered by itself. */
class Sent {
  readonly sent = true;
}
/** Given back by a handler that wrote the response itself. */
export const sent = new Sent();

type Json<T> = T extends string ? string : object;

/** One for each operation. It returns the reply's body, or `sent` where it has answered itself (a file). */
export type Handlers = {
  readonly [O in Operation]: (checked: Checked<O>, exchange: Exchange) => Promise<Json<ReplyTo<O>> | Sent> | Json<ReplyTo<O>> | Sent;
};

/** Looks whether whoever asks may; throws where they may not. Before anything of the request is read, and once it is. */
export interface Gate {
  may(operation: Operation, request: Request): Promise<void>;
  own(request: Request, body: unknown): void;
}

/** In the table's order. An operation without a handler doesn't compile. */
export function serve(app: Express, gate: Gate, handlers: Handlers): void {
  for (const [operation, route] of Object.entries(routes) as [Operation, RouteDescription][]) {
    const handle = handlers[operation] as (checked: object, exchange: Exchange) => Promise<unknown>;
    app[route.method](route.path, async (request, response) => {
      response.locals.operation = operation;
      await gate.may(operation, request);
      const checked = {
        params: route.params && parse(route.params, request.params, 'path'),
        query: route.query && parse(route.query, request.query, 'query'),
        body: route.body && parse(route.body, request.body, ''),
      };
      gate.own(request, checked.body);
      const value = await handle(checked, { request, response });
      if (value !== sent) response.status(route.status).json(value);
    });
  }
}
