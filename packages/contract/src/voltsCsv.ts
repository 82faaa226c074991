/** A logged voltage as CSV: `time_s,volts`, seconds that never decrease. */
import type { CaptureSample, Problem } from '@veglia/core';
import { missing, rowsOf } from './csvRows.ts';

/** Told at most; a file that is wrong throughout is wrong in its first rows, too. */
const mostProblems = 20;
/** As a logger writes in an hour at ten a second. */
const mostRows = 36_000;

/** The log, or every problem by row; `where` names the file in them. */
export function readVoltsCsv(
  text: string,
  where = 'file',
): { readonly samples: readonly CaptureSample[] } | { readonly problems: readonly Problem[] } {
  const { header, rows } = rowsOf(text);
  const problems: Problem[] = missing(header, ['time_s', 'volts'], where);
  if (problems.length > 0) return { problems };
  if (rows.length > mostRows) return { problems: [{ code: 'schema', where, value: rows.length, expected: `at most ${mostRows} rows` }] };
  const samples: CaptureSample[] = [];
  rows.forEach((row, index) => {
    if (problems.length >= mostProblems) return;
    const number = (column: string): number => {
      const typed = row[column]?.trim() ?? '';
      const read = typed === '' ? Number.NaN : Number(typed);
      if (!Number.isFinite(read))
        problems.push({ code: 'schema', where: `${where}, row ${index + 1}, ${column}`, value: typed, expected: 'a number' });
      return read;
    };
    const sample = { timeS: number('time_s'), volts: number('volts') };
    const before = samples.at(-1);
    if (before && sample.timeS < before.timeS)
      problems.push({
        code: 'schema',
        where: `${where}, row ${index + 1}, time_s`,
        value: sample.timeS,
        expected: `at least ${before.timeS}`,
      });
    samples.push(sample);
  });
  return problems.length > 0 ? { problems } : { samples };
}
