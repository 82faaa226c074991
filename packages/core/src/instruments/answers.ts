/** What a result answers: the pack names, beside an answer, the results that say the same. */
import type { Repair, TestDefinition } from '../knowledge/index.ts';
import type { BodyOf } from '../ledger/index.ts';
import type { Report } from './instrument.ts';

/** An answer that a result amounts to. */
export interface InstrumentAnswer {
  readonly test: string;
  readonly outcome: string;
}

/** In the order of the tests; a result that says nothing certain answers none. */
export function instrumentAnswers(
  instrument: string,
  report: Pick<Report, 'findings' | 'needs'>,
  tests: Iterable<TestDefinition>,
): InstrumentAnswer[] {
  if (report.needs.length > 0) return [];
  return [...tests].flatMap(({ id, observe }) =>
    observe.outcomes
      .filter(({ by }) => by?.some((one) => one.instrument === instrument && report.findings.some(({ code }) => code === one.finding)))
      .slice(0, 1)
      .map((outcome) => ({ test: id, outcome: outcome.id })),
  );
}

/** What a result changes of the set: a chip that came off is missing until one is recorded as fitted. `on`: the board, where it is known. */
export function instrumentChange(
  report: Pick<Report, 'findings'>,
  read: Readonly<Record<string, string>>,
  lifted: readonly { readonly name: string }[],
  on?: string,
): Partial<BodyOf<'set.changed'>> | undefined {
  const name = read.chip ?? '';
  const said = (...codes: readonly string[]): boolean => report.findings.some(({ code }) => codes.includes(code));
  const off = lifted.some((one) => one.name === name);
  if (said('chip-off-done', 'chip-pads-lifted') && !off) return { lifted: [{ name, what: 'part', ...(on === undefined ? {} : { on }) }] };
  return said('chip-on-done') && off ? { refitted: [name] } : undefined;
}

/** Instruments whose results answer this test, in the order of its answers; or that help with this repair. */
export const instrumentsFor = (step: TestDefinition | Pick<Repair, 'instruments'>): readonly string[] =>
  'observe' in step
    ? [...new Set(step.observe.outcomes.flatMap(({ by }) => (by ?? []).map(({ instrument }) => instrument)))]
    : (step.instruments ?? []);
