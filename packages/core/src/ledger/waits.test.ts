import { expect, test } from '@jest/globals';
import type { Body, Entry } from './index.ts';
import { openWaits } from './index.ts';

const start = Date.parse('2026-03-02T09:00:00Z');
const live = (...bodies: Body[]): Entry[] =>
  bodies.map((body, index) => ({
    id: `e${index + 1}`,
    seq: index + 1,
    at: new Date(start + index * 60_000).toISOString(),
    by: 'a',
    basedOn: 0,
    body,
  }));
const started = (name: string, minutes: number, toward?: { kind: 'test' | 'repair'; id: string; of?: string }): Body => ({
  kind: 'wait.started',
  v: 2,
  name,
  minutes,
  ...(toward ? { toward } : {}),
});
const ended = (name: string, wait?: string | number): Body => ({ kind: 'wait.ended', v: 2, name, ...(wait === undefined ? {} : { wait }) });
const reset = { kind: 'test', id: 'reset-wait' } as const;

test.each<[string, Body[], string[]]>([
  ['soonest first', [started('soak', 240), started('dry', 10)], ['dry', 'soak']],
  ['ended by its entry', [started('dry', 10), started('dry', 20), ended('dry', 'e1')], ['dry']],
  ['ended by seq, as a file written by hand has it', [started('dry', 10), ended('dry', 1)], []],
  ['ended by name alone: the last of that name', [started('dry', 10), started('soak', 5), ended('dry')], ['soak']],
  ['one that nobody started', [ended('dry')], []],
  [
    'over with its step’s answer',
    [started('reset', 4, reset), { kind: 'test.answered', v: 2, test: 'reset-wait', outcome: 'unchanged', sure: 'sure' }],
    [],
  ],
  [
    'not over with the same test on another object',
    [
      started('warm', 120, { kind: 'test', id: 'heat.all-but', of: 'main' }),
      { kind: 'test.answered', v: 2, test: 'heat.all-but', of: 'tcon', outcome: 'heals', sure: 'sure' },
    ],
    ['warm'],
  ],
  ['over with the job', [started('soak', 240), { kind: 'job.closed', v: 2, outcome: 'repaired', minutes: 5 }], []],
])('%s', (_, bodies, names) => {
  expect(openWaits(live(...bodies)).map(({ name }) => name)).toEqual(names);
});

test('ends its minutes after it was started, by the clock of who started it', () => {
  expect(openWaits(live(started('dry', 10)))).toEqual([{ id: 'e1', name: 'dry', startedAt: start, endsAt: start + 600_000 }]);
});
