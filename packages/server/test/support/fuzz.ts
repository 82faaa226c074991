/**
 * Requests made from the OpenAPI document: mostly of the right shape, some of it spoilt. Whatever comes, the reply is ours to give and
 * never a fault of ours (500). Seeded: the same number gives the same requests.
 */
import { bodySchemas } from '@veglia/core';
import type { Express } from 'express';
import { addressOf } from '@veglia/contract';
import fc from 'fast-check';
import { z } from 'zod';
import { openApiDocument } from '../../src/openapi.ts';
import { ask } from './testApp.ts';

interface JsonSchema {
  readonly [key: string]: unknown;
  readonly type?: string | readonly string[];
  readonly properties?: Readonly<Record<string, JsonSchema>>;
  readonly required?: readonly string[];
  readonly items?: JsonSchema;
  readonly anyOf?: readonly JsonSchema[];
  readonly oneOf?: readonly JsonSchema[];
  readonly enum?: readonly unknown[];
}
interface Operation {
  readonly parameters?: readonly { readonly name: string; readonly in: string; readonly schema: JsonSchema }[];
  readonly requestBody?: { readonly content: { readonly 'application/json'?: { readonly schema: JsonSchema } } };
}

/** What parsers, databases and languages trip over. */
const nasty = fc.constantFrom<unknown>(
  ...['', ' ', '\0', 'a\0b', '\ud800', '\udfff', '\ufeff', '%', '%zz', "'", '"; DROP TABLE entries; --', '../../etc/passwd', '{}', 'null'],
  ...['__proto__', 'constructor', 'toString', 'x'.repeat(5000), '\u202e', '0000-01-01T00:00:00Z', '2026-02-30T00:00:00Z', '1e400', 'NaN'],
  ...[-1, 0, 0.5, 2 ** 31, 2 ** 53, 1e308, -0, 99_999_999_999, true, false, null, [], {}, [[]], { $ref: '#' }, { length: 3 }],
);
const id = fc.constantFrom(
  'led-tcon',
  'oled',
  'plasma',
  'sound-dark',
  'dead',
  'torch',
  'nothing',
  'power',
  'main',
  'replace.main',
  'no.such',
  'constructor',
);

/** Mostly what the schema asks for; ids that were seen are drawn again, so that requests meet each other's records. */
function valueOf(schema: JsonSchema, known: readonly string[], depth = 0): fc.Arbitrary<unknown> {
  const right = rightValueOf(schema, known, depth);
  return fc.oneof({ weight: 19, arbitrary: right }, { weight: 1, arbitrary: nasty });
}

function rightValueOf(schema: JsonSchema, known: readonly string[], depth: number): fc.Arbitrary<unknown> {
  const inner = (one: JsonSchema): fc.Arbitrary<unknown> => valueOf(one, known, depth + 1);
  if ('const' in schema) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...schema.enum);
  const choices = schema.anyOf ?? schema.oneOf;
  if (choices) return fc.oneof(...choices.map(inner));
  const type = Array.isArray(schema.type) ? (schema.type as string[])[0] : schema.type;
  if (type === 'null') return fc.constant(null);
  if (type === 'boolean') return fc.boolean();
  const [least, most] = [Number(schema.minimum ?? -5), Number(schema.maximum ?? 1000)];
  if (type === 'integer') return fc.integer({ min: Math.ceil(least), max: Math.min(most, 2 ** 31 - 1) });
  if (type === 'number') return fc.double({ min: least, max: most, noNaN: true });
  if (type === 'string') {
    if (schema.format === 'uuid') return known.length > 0 ? fc.oneof(fc.constantFrom(...known), fc.uuid()) : fc.uuid();
    if (schema.format === 'date-time') return fc.constantFrom('2026-03-02T12:00:00.000Z', '1999-12-31T23:59:59Z');
    if (schema.format === 'date') return fc.constantFrom('2026-03-02', '2024-02-29');
    if (typeof schema.pattern === 'string' && schema.pattern.includes('{64}')) return fc.constant('0'.repeat(64));
    if (typeof schema.pattern === 'string') return id;
    return fc.oneof(id, fc.string({ maxLength: 40, unit: 'grapheme' }));
  }
  if (type === 'array') return fc.array(schema.items ? inner(schema.items) : nasty, { maxLength: 3 });
  if (type === 'object' || schema.properties) {
    const properties = schema.properties ?? {};
    const keys = Object.keys(properties).filter((key) => depth < 8 || (schema.required ?? []).includes(key));
    return fc.record(Object.fromEntries(keys.map((key) => [key, inner(properties[key] ?? {})])), {
      requiredKeys: keys.filter((key) => (schema.required ?? []).includes(key)),
    });
  }
  return nasty;
}

const bodies = Object.values(bodySchemas).map((schema) => z.toJSONSchema(schema, { io: 'input' }) as JsonSchema);

/** Puts a body that the core reads where the document only says "an object with a kind". */
function withBodies(schema: JsonSchema): JsonSchema {
  if (schema.properties?.kind && schema.additionalProperties !== false) return { oneOf: bodies };
  return JSON.parse(JSON.stringify(schema), (_, value: unknown) => {
    const one = value as JsonSchema | null;
    return typeof one === 'object' && one?.properties?.kind && Object.keys(one.properties).length === 1 ? { oneOf: bodies } : value;
  }) as JsonSchema;
}

export interface Answered {
  readonly request: string;
  readonly body: unknown;
  readonly status: number;
  readonly reply: unknown;
}

/** `n` requests spread over all operations; `known` are ids that are there (people, jobs). Returns each with its reply. */
export async function fuzz(app: Express, known: string[], n: number, seed: number): Promise<Answered[]> {
  const { paths } = openApiDocument('0') as { paths: Record<string, Record<string, Operation>> };
  const operations = Object.entries(paths)
    // Signed out, all the rest would be refused at the door.
    .filter(([path]) => path !== addressOf('signOut'))
    .flatMap(([path, methods]) => Object.entries(methods).map(([method, operation]) => ({ path, method, operation })));
  const answered: Answered[] = [];
  for (let at = 0; at < n; at += 1) {
    const { path, method, operation } = operations[at % operations.length] ?? { path: '/', method: 'get', operation: {} };
    const schema = operation.requestBody?.content['application/json']?.schema;
    const [sample] = fc.sample(
      fc.tuple(
        fc.tuple(...(operation.parameters ?? []).map((one) => valueOf(one.schema, known))),
        schema ? valueOf(withBodies(schema), known) : fc.constant(undefined),
      ),
      { numRuns: 1, seed: seed * 1_000_003 + at },
    );
    const [values, body]: readonly unknown[] = sample as unknown as unknown[];
    const part = (value: unknown): string =>
      typeof value === 'string' ? encodeURIComponent(value.replace(/\p{Surrogate}/gu, '')) : encodeURIComponent(JSON.stringify(value));
    let target = path;
    const query: string[] = [];
    (operation.parameters ?? []).forEach((one, index) => {
      if (one.in === 'path') target = target.replace(`{${one.name}}`, part((values as unknown[])[index]) || '-');
      else query.push(`${one.name}=${part((values as unknown[])[index])}`);
    });
    if (query.length > 0) target += `?${query.join('&')}`;
    const asked = ask(app)[method as 'get' | 'post' | 'put'](target);
    const sent =
      method === 'get'
        ? asked
        : path.includes('photos') || path.endsWith('content')
          ? asked
              .set('content-type', path.includes('photos') ? 'image/png' : 'application/octet-stream')
              .send(Buffer.from(JSON.stringify(values)))
          : asked.set('content-type', 'application/json').send(JSON.stringify(body) ?? '');
    const answer = await sent;
    const { status } = answer;
    const reply: unknown = answer.body;
    answered.push({ request: `${method} ${target}`, body, status, reply });
    const made = (reply as { id?: unknown } | null)?.id;
    if (status === 201 && typeof made === 'string' && known.length < 40) known.push(made);
  }
  return answered;
}
