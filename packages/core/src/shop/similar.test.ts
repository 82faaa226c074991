import { describe, expect, test } from '@jest/globals';
import { similarJobs } from './index.ts';

const past = [
  { id: 1, family: 'a.one', layout: 'led-tcon', symptoms: ['blinking'], code: '6' },
  { id: 2, family: 'a.one', layout: 'led-tcon', symptoms: ['dead'] },
  { id: 3, family: 'b.two', layout: 'led-tcon', symptoms: ['blinking'], code: '6' },
  { id: 4, layout: 'plasma', symptoms: ['blinking'] },
  { id: 5, family: 'a.one', layout: 'led-tcon', symptoms: ['blinking', 'dead'], code: '3-1' },
];
const found = (now: Parameters<typeof similarJobs>[0], most?: number): [number, string[]][] =>
  similarJobs(now, past, most).map(({ job, same }) => [job.id, [...same]]);

describe('similar past jobs', () => {
  test('same code of the same family first; another family’s code says nothing', () => {
    expect(found({ family: 'a.one', layout: 'led-tcon', symptoms: ['blinking'], code: '6' })).toEqual([
      [1, ['family', 'symptom', 'code']],
      [5, ['family', 'symptom']],
      [3, ['layout', 'symptom']],
    ]);
  });

  test('a family alone, or a layout alone, is no likeness', () => {
    expect(found({ family: 'a.one', layout: 'led-tcon', symptoms: ['no-sound'] })).toEqual([]);
    expect(found({ symptoms: ['blinking'] })).toEqual([]);
    expect(found({ layout: 'plasma', symptoms: ['blinking'] })).toEqual([[4, ['layout', 'symptom']]]);
  });

  test('no more than asked for', () => {
    expect(found({ family: 'a.one', symptoms: ['blinking', 'dead'] }, 2)).toHaveLength(2);
  });
});
