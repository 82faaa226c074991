/** What an interpreted case consists of: hypotheses, evidence for them, and what could not be used. */
import type { Following } from './follows.ts';
import type { Family, PlacedFault, SetIdentity } from '../../knowledge/index.ts';
import type { BodyOf, Entry, SetState } from '../../ledger/index.ts';

/** Id of the unknown fault: what is wrong is in no pack. */
export const notInBook = 'not-in-the-book';

/** A fault in a layout, and how likely it is before anything was seen; priors of all sum to 1. */
export interface Hypothesis {
  readonly layoutId: string;
  /** Undefined: "not in the pack". */
  readonly fault: PlacedFault | undefined;
  readonly prior: number;
}

/** Why an entry that could have been evidence isn't. */
export const unusedCodes = [
  'unknown-test',
  'unknown-outcome',
  'unknown-symptom',
  'unknown-family',
  'unknown-layout',
  'unknown-repair',
  'no-blink-table',
  'light-no-code',
  'board-was-out',
  'said-nothing',
  'earlier-fault',
  'seen-otherwise',
  'follows',
  'could-not-change',
  'symptom-was-absent',
  'plug-left-out',
  'wrong-layout',
  'object-missing',
] as const;
/** One of `unusedCodes`. */
export type UnusedCode = (typeof unusedCodes)[number];

/** An entry that is no evidence, and why. */
export interface Unused {
  readonly entry: string;
  readonly code: UnusedCode;
  readonly id?: string;
}

/** What a person should look into. */
export const doubtCodes = [
  'answers-disagree',
  'blink-read-once',
  'count-not-in-table',
  'code-not-read-first',
  'code-not-returned',
  'maybe-start-attempts',
  'fits-nothing-well',
  'layout-not-certain',
  'outside-scope',
  'outside-family',
  'polarity-unknown',
  'symptom-changed',
  'may-be-two',
  'done-live',
] as const;
/** One of `doubtCodes`. */
export type DoubtCode = (typeof doubtCodes)[number];

/** A doubt, and what it is about. */
export interface Doubt {
  readonly code: DoubtCode;
  readonly id?: string;
  readonly value?: number;
  readonly entries?: readonly string[];
}

/** One look at a test, and how often such a look is wrong. */
export interface Reading {
  readonly entry: Entry;
  readonly body: BodyOf<'test.answered'>;
  readonly error: number;
}

/** Entries that are judged together; log likelihoods are natural, one a hypothesis. */
export interface EvidenceUnit {
  readonly kind: 'history' | 'symptom' | 'blink' | 'test' | 'repair';
  readonly key: string;
  readonly entries: readonly Entry[];
  readonly logLikelihood: readonly number[];
  /** For tests: keys of the readings it was made from. */
  readonly readings?: readonly string[];
  /** For tests: what was answered, for proof requirements. */
  readonly answers: readonly { test: string; of: string | undefined; outcome: string; sure: boolean }[];
}

/** A case, read under a pack. */
export interface Interpretation {
  readonly hypotheses: readonly Hypothesis[];
  readonly units: readonly EvidenceUnit[];
  /** Looks by test and object, as the units were made from. */
  readonly readings: ReadonlyMap<string, readonly Reading[]>;
  readonly unused: readonly Unused[];
  readonly doubts: readonly Doubt[];
  readonly symptoms: ReadonlySet<string>;
  readonly family: Family | undefined;
  /** Model, version and year, as far as the plate was read. */
  readonly identity: Omit<SetIdentity, 'family'>;
  readonly layoutProbabilities: Readonly<Record<string, number>>;
  /** The layout plans and lists are taken from: the likeliest. */
  readonly layoutId: string | undefined;
  readonly state: SetState;
  readonly blinkRead: boolean;
  readonly cautionsRead: ReadonlySet<string>;
  /** `test|of` already answered with something, and those that can't be done here. */
  readonly answered: ReadonlySet<string>;
  readonly impossible: ReadonlySet<string>;
  /** Tried, and it couldn't be told. */
  readonly unclear: ReadonlySet<string>;
  /** Repairs not worth doing again, by id. */
  readonly repaired: ReadonlySet<string>;
  /** Seq of the repair after which another symptom came; 0 while it is still the first. */
  readonly epoch: number;
  /** Tests whose answer follows from a reading there is, and what they would say. */
  readonly follow: ReadonlyMap<string, Following>;
  /** What happened to it before it came here, by the pack's ids. */
  readonly histories: readonly string[];
  /** The last that was done to it ended the symptom: what is left is to prove it and close. */
  readonly cured: boolean;
  /** The bench saw this set draw a picture, good or bad: what was complained of it was looked at. */
  readonly pictureSeen: boolean;
  /** A crack was seen in the glass: by the customer's set as it came in, or on the bench. */
  readonly cracked: boolean;
  readonly closed: boolean;
}

/** What the plate says, with the family as the pack knows it. */
export const identityOf = (seen: Pick<Interpretation, 'family' | 'identity'>): SetIdentity => ({
  ...seen.identity,
  family: seen.family?.id,
});

/** One test on one object, as a key. */
export const testKey = (test: string, of: string | undefined): string => (of === undefined ? test : `${test}|${of}`);
