export {
  behaviours,
  expectedAt,
  expectedSources,
  measuredBy,
  outcomeOfReading,
  type Behaviour,
  type Expected,
  type ExpectedSource,
  type Typed,
} from './judge.ts';
