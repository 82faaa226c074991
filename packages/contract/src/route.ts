/** What describes a route of the API. */
import type { z } from 'zod';

/** What routes are grouped by in the API’s document. */
export const tags = ['accounts', 'jobs', 'documents', 'parts', 'firmware', 'knowledge', 'statistics', 'shop', 'server'] as const;

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
