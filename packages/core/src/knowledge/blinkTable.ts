/**
 * The blink table of one family as a file of its own (`veglia-blink-table`, version 1), to be looked over, handed on and checked in. A table
 * is part of the pack; checked in, it makes a new version of the pack with this family's rows replaced.
 */
import { z } from 'zod';
import type { CompiledPack } from './compile.ts';
import { checkBlinkCodes } from './checkBlink.ts';
import { blinkCodeSchema, type Pack } from './schema.ts';
import { InputRefused, type Problem } from '../problems.ts';

/** A family’s blink table as a document of its own. */
export const blinkTableSchema = z.strictObject({
  format: z.literal('veglia-blink-table'),
  version: z.literal(1),
  family: z.string().min(1),
  codes: z.array(z.unknown()).max(400),
});
/** A family’s blink table. */
export interface BlinkTable {
  readonly family: string;
  readonly codes: Pack['families'][number]['blink'];
}

/** Every problem of every row, `where` naming the row from 1 and its id; empty where it may be checked in. */
export function blinkTableProblems(document: unknown, pack: Pack): { problems: Problem[]; table?: BlinkTable } {
  const whole = blinkTableSchema.safeParse(document);
  if (!whole.success) {
    return {
      problems: whole.error.issues.map((issue) => ({
        code: 'schema',
        where: ['table', ...issue.path.map(String)].join('.'),
        expected: issue.message,
      })),
    };
  }
  const { family, codes: rows } = whole.data;
  const problems: Problem[] = [];
  const found = pack.families.find(({ id }) => id === family);
  if (!found) problems.push({ code: 'unknown-id', where: 'table.family', value: family, expected: 'family' });
  const codes: BlinkTable['codes'] = [];
  const places: string[] = [];
  rows.forEach((row, index) => {
    const id = typeof row === 'object' && row !== null && 'id' in row && typeof row.id === 'string' ? ` (${row.id})` : '';
    const where = `row ${index + 1}${id}`;
    const read = blinkCodeSchema.safeParse(row);
    if (read.success) {
      codes.push(read.data);
      places.push(where);
    } else
      problems.push(
        ...read.error.issues.map((issue): Problem => ({
          code: 'schema',
          where: [where, ...issue.path.map(String)].join(', '),
          expected: issue.message,
        })),
      );
  });
  problems.push(...checkBlinkCodes(codes, (index) => places[index] ?? '', pack));
  return problems.length === 0 ? { problems, table: { family, codes } } : { problems };
}

/** The pack with one family's table replaced. Throws InputRefused with every problem. */
export function withBlinkTable(pack: Pack, document: unknown): Pack {
  const { problems, table } = blinkTableProblems(document, pack);
  if (!table) throw new InputRefused(problems);
  return {
    ...pack,
    families: pack.families.map((family) => (family.id === table.family ? { ...family, blink: [...table.codes] } : family)),
  };
}

/** The table of a family as it is. */
export const blinkTableOf = (compiled: CompiledPack, family: string): z.infer<typeof blinkTableSchema> => ({
  format: 'veglia-blink-table',
  version: 1,
  family,
  codes: [...(compiled.families.get(family)?.blink ?? [])],
});
