/**
 * Every way the core can say no. Codes and values only: sentences are made in contract/words.
 *
 * `where` is a path into the input ("tests/torch.likelihood[0]"), `value` what was found there, `unit` its unit
 * where it has one.
 */
export const problemCodes = [
  'schema',
  'not-json',
  'not-readable',
  'duplicate-id',
  'unknown-id',
  'row-sum',
  'too-rare',
  'never-without-law',
  'row-rest-twice',
  'row-missing-default',
  'row-repeated',
  'likelihood-no-fallback',
  'exception-without-reason',
  'graph-cycle',
  'graph-unreachable',
  'pull-not-restored',
  'pull-under-power',
  'procedure-without-caution',
  'hazard-without-caution',
  'caution-contradicted',
  'caution-forbids',
  'code-before-disturbance',
  'word-unknown',
  'proof-missing',
  'alias-to-nowhere',
  'list-unknown-test',
  'entry-kind-unknown',
  'entry-version-unknown',
  'entry-order',
  'retraction-without-target',
  'pack-hash-differs',
  'never-applies',
  'state-unreachable',
  'opposite-meanings',
  'outcome-not-observable',
  'bad-character',
  'left-out',
  'unchecked',
  'unproven',
  'not-agreed',
  'not-open',
  'job-open',
] as const;

/** One of `problemCodes`. */
export type ProblemCode = (typeof problemCodes)[number];

/** What is wrong with an input, and where. */
export interface Problem {
  readonly code: ProblemCode;
  readonly where: string;
  readonly value?: string | number;
  readonly expected?: string;
  readonly unit?: string;
}

/** Thrown at a boundary when input can't be used; carries all that is wrong with it, not only the first thing. */
export class InputRefused extends Error {
  readonly problems: readonly Problem[];

  constructor(problems: readonly Problem[]) {
    super(problems.map((problem) => `${problem.code} at ${problem.where}`).join('; '));
    this.name = 'InputRefused';
    this.problems = problems;
  }
}

interface SchemaIssue {
  readonly path: readonly PropertyKey[];
  readonly message: string;
}

/** Zod issues as problems; `root` names the document they were found in. */
export function problemsOfSchema(issues: readonly SchemaIssue[], root: string): Problem[] {
  return issues.map((issue) => ({
    code: 'schema',
    where: [root, ...issue.path.map(String)].filter((part) => part !== '').join('.'),
    expected: issue.message,
  }));
}
