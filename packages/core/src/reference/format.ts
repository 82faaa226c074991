/**
 * Reference cases (`veglia-told`): what happened on a bench in entries of the ledger, and what a sound judge must say of it after so many
 * of them. A shop keeps its own hard cases in this form and runs them whenever it edits the pack (docs/knowledge.md).
 *
 *   { format: 'veglia-told', version: 2, source, cases: [{ id, story, set, settings?, entries, expect }] }
 *
 * An expectation has `because`, and `after`: entries folded, left out all of them.
 *   probability   summed probability of the assemblies `of`, from `min` to `max`
 *   fault    the same over faults
 *   verdict  of the assembly `of`: `is` or `not`
 *   next     the first step has not the kind `kindNot`, is one of `idIn`, none of `idNotIn`, at none of the stages `stageNot`;
 *            or one of the first `within` steps is one of `hasOneOf`. A step that has an object may be named with it: `reseat:harness.light`.
 */
import { z } from 'zod';
import { verdicts } from '../diagnosis/index.ts';
import { caseFileSchema, upgradeCaseParts } from '../ledger/index.ts';
import { InputRefused, problemsOfSchema, type Problem } from '../problems.ts';
import { asRecord } from '../renamed.ts';

const share = z.number().min(0).max(1);
const because = z.string().min(1);
const after = z.number().int().min(0).optional();
const ids = z.array(z.string().min(1)).min(1);

const boundedSchema = <const What extends 'probability' | 'fault'>(what: What) =>
  z
    .strictObject({ what: z.literal(what), of: ids, min: share.optional(), max: share.optional(), after, because })
    .refine(({ min, max }) => min !== undefined || max !== undefined, 'min or max');
const verdictSchema = z
  .strictObject({
    what: z.literal('verdict'),
    of: z.string().min(1),
    is: z.enum(verdicts).optional(),
    not: z.enum(verdicts).optional(),
    after,
    because,
  })
  .refine(({ is, not }) => (is === undefined) !== (not === undefined), 'is or not');
const firstSchema = z.strictObject({
  kindNot: z.string().optional(),
  idIn: ids.optional(),
  idNotIn: ids.optional(),
  stageNot: ids.optional(),
});
const nextSchema = z
  .strictObject({
    what: z.literal('next'),
    first: firstSchema.optional(),
    within: z.number().int().min(1).optional(),
    hasOneOf: ids.optional(),
    after,
    because,
  })
  .refine(
    ({ first, within, hasOneOf }) => (first === undefined) === (within !== undefined && hasOneOf !== undefined),
    'first, or within and hasOneOf',
  );

/** What a case must fold to. */
export const expectationSchema = z.union([boundedSchema('probability'), boundedSchema('fault'), verdictSchema, nextSchema]);
/** What a case must fold to. */
export type Expectation = z.infer<typeof expectationSchema>;

/** A case that somebody told, and what must come of it. */
export const referenceCaseSchema = z.strictObject({
  id: z.string().min(1),
  story: z.string().min(1),
  set: caseFileSchema.shape.set,
  settings: caseFileSchema.shape.settings,
  entries: z.array(z.unknown()),
  expect: z.array(expectationSchema).min(1),
  /** Steps the case asks for that a pack may not have yet, by id: what each is. */
  newTests: z.record(z.string(), z.string()).optional(),
  needsNew: z.boolean().optional(),
});
/** A case that somebody told, and what must come of it. */
export type ReferenceCase = z.infer<typeof referenceCaseSchema>;

/** A file of such cases: format `veglia-told`, version 2. */
export const referenceFileSchema = z.strictObject({
  format: z.literal('veglia-told'),
  version: z.literal(2),
  source: z.string().min(1),
  cases: z.array(referenceCaseSchema).min(1),
});

/** Version 1 said `odds` for the summed probability and in what a case holds; what isn't of version 1 comes back as it is. */
function upgradeReferenceFile(document: unknown): unknown {
  const file = asRecord(document);
  if (file?.format !== 'veglia-told' || file.version !== 1 || !Array.isArray(file.cases)) return document;
  return { ...file, version: 2, cases: file.cases.map(upgradeReferenceCase) };
}

function upgradeReferenceCase(one: unknown): unknown {
  const told = asRecord(one);
  if (!told) return one;
  const expect = Array.isArray(told.expect) ? told.expect.map(withoutOdds) : told.expect;
  return { ...upgradeCaseParts(told), ...(expect === undefined ? {} : { expect }) };
}

const withoutOdds = (expectation: unknown): unknown =>
  asRecord(expectation)?.what === 'odds' ? { ...asRecord(expectation), what: 'probability' } : expectation;

/** Cases of one or more documents; throws InputRefused with every problem, an id given twice and an `after` beyond the end among them. */
export function parseReferenceCases(documents: readonly { readonly name: string; readonly document: unknown }[]): ReferenceCase[] {
  const problems: Problem[] = [];
  const cases: ReferenceCase[] = [];
  const seen = new Set<string>();
  for (const { name, document } of documents) {
    const parsed = referenceFileSchema.safeParse(upgradeReferenceFile(document));
    if (!parsed.success) {
      problems.push(...problemsOfSchema(parsed.error.issues, name));
      continue;
    }
    for (const one of parsed.data.cases) {
      if (seen.has(one.id)) problems.push({ code: 'duplicate-id', where: name, value: one.id });
      seen.add(one.id);
      for (const { after = 0 } of one.expect)
        if (after > one.entries.length)
          problems.push({
            code: 'schema',
            where: `${name}.${one.id}.after`,
            value: after,
            expected: `at most ${one.entries.length} entries`,
          });
      cases.push(one);
    }
  }
  if (problems.length > 0) throw new InputRefused(problems);
  return cases;
}
