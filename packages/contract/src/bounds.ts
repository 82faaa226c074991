/** What a schema allows of a number or a text, for the field that fills it: each bound is written once, where data is checked. */
import { z } from 'zod';

/** Least and most of a number; most letters of a text. Left out where there is none. */
export interface Bounds {
  readonly least?: number;
  readonly most?: number;
  readonly longest?: number;
}

/** Of a schema for one number or one text, optional or not. Throws for any other: a field has no bounds of its own. */
export function boundsOf(schema: z.ZodType): Bounds {
  if (schema instanceof z.ZodOptional || schema instanceof z.ZodDefault || schema instanceof z.ZodNullable)
    return boundsOf(schema.unwrap() as z.ZodType);
  if (schema instanceof z.ZodNumber)
    return {
      ...(schema.minValue === null ? {} : { least: schema.minValue }),
      ...(schema.maxValue === null ? {} : { most: schema.maxValue }),
    };
  if (schema instanceof z.ZodString) return schema.maxLength === null ? {} : { longest: schema.maxLength };
  throw new TypeError(`no bounds of ${schema.type}`);
}
