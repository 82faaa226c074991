/** Which contacts of a row to cover next. Trials are written as "1-4 loops; 5 6 starts": the lines left uncovered, and what the set did. */
import { adviseMask, mostLines, type MaskTrial } from '../panel/index.ts';
import { waitsFor, type Finding, type Instrument } from './instrument.ts';

const results: readonly (readonly [RegExp, MaskTrial['result']])[] = [
  [/^(?:l|loops?|looped|restarts?)$/i, 'looped'],
  [/^(?:f|flaw|starts?-with-flaw|washed)$/i, 'started-with-flaw'],
  [/^(?:s|starts?|started|runs?)$/i, 'started'],
];

/** Throws RangeError, naming the trial that can’t be read. */
function readTrials(text: string): MaskTrial[] {
  return text
    .split(/[;\n]+/)
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .map((one) => {
      const words = one.split(/[\s,]+/);
      const result = results.find(([pattern]) => pattern.test(words.at(-1) ?? ''))?.[1];
      const uncovered = words.slice(0, -1).flatMap((word) => {
        const range = /^(\d{1,2})(?:-(\d{1,2}))?$/.exec(word);
        if (!range) return [Number.NaN];
        const [from, to] = [Number(range[1]), Number(range[2] ?? range[1])];
        return Array.from({ length: Math.max(0, to - from + 1) }, (_, index) => from + index);
      });
      if (!result || uncovered.length === 0 || uncovered.some(Number.isNaN)) throw new RangeError(one);
      return { uncovered, result };
    });
}

const listed = (lines: readonly number[]): string => lines.join(', ');

export const mask: Instrument = {
  id: 'mask',
  measures: true,
  fields: [
    { id: 'lines', kind: 'quantity', unit: '', whole: true, least: 1, most: mostLines },
    { id: 'trials', kind: 'text', unit: '', optional: true },
    { id: 'hits', kind: 'list', unit: '', optional: true, whole: true, least: 0, most: 10_000 },
    { id: 'by', kind: 'choice', unit: '', usual: 'expected', choices: ['expected', 'worst'] },
  ],
  run(values) {
    const lines = values.number('lines');
    if (lines === undefined) return waitsFor(['lines']);
    const advice = adviseMask(lines, readTrials(values.text('trials')), {
      hits: values.list('hits'),
      by: values.text('by') === 'worst' ? 'worst' : 'expected',
    });
    if (advice.contradiction) {
      return {
        figures: [],
        findings: [
          {
            code: advice.contradiction.length > 0 ? 'mask-contradiction' : 'mask-none-fits',
            tone: 'bad',
            values: { trials: listed(advice.contradiction) },
          },
        ],
        needs: [],
      };
    }
    const findings: Finding[] = advice.uncover
      ? [
          {
            code: 'mask-next',
            tone: 'doubt',
            values: { uncover: listed([...advice.uncover, ...advice.innocent].sort((a, b) => a - b)), cover: listed(advice.cover) },
          },
        ]
      : [{ code: 'mask-done', tone: 'good', values: { cover: listed(advice.cover) } }];
    if (advice.guilty.length > 0 && advice.uncover)
      findings.push({ code: 'mask-guilty', tone: 'bad', values: { lines: listed(advice.guilty) } });
    const contacts = Array.from({ length: lines }, (_, index) => {
      const line = index + 1;
      if (advice.guilty.includes(line)) return 'guilty';
      if (advice.innocent.includes(line)) return 'innocent';
      return advice.cover.includes(line) ? 'covered' : 'open';
    });
    return {
      figures: [
        { id: 'trialsLeft', value: advice.expectedLeft, unit: '' },
        { id: 'trialsWorst', value: advice.worstLeft, unit: '' },
      ],
      findings,
      needs: [],
      plot: { kind: 'contacts', contacts },
    };
  },
};
