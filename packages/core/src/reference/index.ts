export {
  expectationSchema,
  parseReferenceCases,
  referenceCaseSchema,
  referenceFileSchema,
  type Expectation,
  type ReferenceCase,
} from './format.ts';
export { judgeCase, missName, type Judged } from './judge.ts';
