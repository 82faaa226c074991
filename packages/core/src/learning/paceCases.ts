/**
 * How long a person takes against the book, as someone who plans a bench would reckon it: written before the rule (common practice, no source).
 * One slow job says little, ten say something; what was left standing on the bench all day is not the person’s pace; a number that was only
 * left as it stood was not measured.
 */

/** A closed job whose minutes were typed. */
export interface TimedCase {
  readonly book: number;
  readonly typed: number;
}
export interface PaceCase {
  readonly name: string;
  readonly jobs: readonly TimedCase[];
  /** To three places. */
  readonly factor: number;
}
/** Two hours by the book stand for what nothing is known of. */
export const paceCases: readonly PaceCase[] = [
  { name: 'nobody has timed anything: as the book has it', jobs: [], factor: 1 },
  // (90 + 120) / (60 + 120)
  { name: 'one job of an hour took an hour and a half', jobs: [{ book: 60, typed: 90 }], factor: 1.167 },
  // (480 + 120) / (600 + 120)
  { name: 'ten of an hour took 48 minutes each', jobs: Array.from({ length: 10 }, () => ({ book: 60, typed: 48 })), factor: 0.833 },
  // At most three times the book: (120 + 120) / (40 + 120)
  { name: 'forty minutes’ work that stood there for ten hours', jobs: [{ book: 40, typed: 600 }], factor: 1.5 },
  // At least a third: (20 + 120) / (60 + 120)
  { name: 'an hour’s work for which two minutes were typed', jobs: [{ book: 60, typed: 2 }], factor: 0.778 },
];
