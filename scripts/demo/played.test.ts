import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, test } from '@jest/globals';
import { readPackFolder } from '@veglia/contract/node';
import { caseOfLedger, compilePack, foldCase, readBody, type Entry } from '@veglia/core';
import { inRoot } from '../lib/paths.mjs';
import { playedJobs, type Names } from './played.ts';

const compiled = compilePack(await readPackFolder(inRoot('knowledge')));
const names = JSON.parse(readFileSync(inRoot('demo/names.json'), 'utf8')) as Names;
const jobs = playedJobs(compiled, names);
const stored = readdirSync(inRoot('demo/jobs')).filter((name) => /^[1-9]\d-/.test(name));

describe('the demo’s played jobs', () => {
  test('are fresh: `npm run demo:jobs` would write what is there', () => {
    expect(stored.sort()).toEqual([...jobs.keys()].sort());
    for (const [name, job] of jobs) {
      expect([name, JSON.parse(readFileSync(inRoot(`demo/jobs/${name}`), 'utf8'))]).toEqual([name, job]);
    }
  });

  test('cover every layout, from just checked in to closed, and every ending', () => {
    const bodies = [...jobs.values()].map((job) => job.entries.map(({ body }) => body));
    const layouts = new Set(bodies.map(([opened]) => (opened?.set as { layout: string }).layout));
    expect([...layouts].sort()).toEqual([...compiled.layouts.keys()].sort());
    const outcomes = new Set(bodies.flatMap((all) => all.flatMap((body) => (body.kind === 'job.closed' ? [body.outcome] : []))));
    expect(outcomes).toEqual(new Set(['repaired', 'repaired-with-known-flaw', 'workaround', 'not-worth-it', 'handed-back']));
    expect(bodies.filter((all) => !all.some(({ kind }) => kind === 'job.closed')).length).toBeGreaterThan(12);
  });

  test('are ledgers the pack understands whole', () => {
    for (const [name, { entries }] of jobs) {
      const ledger = entries.map(({ body }, index): Entry => {
        const read = readBody(body, name);
        if ('problems' in read) throw new Error(JSON.stringify(read.problems));
        return { id: `e${index}`, seq: index + 1, at: '2026-01-01T00:00:00Z', by: 'demo', basedOn: index, body: read.body };
      });
      const fold = foldCase(caseOfLedger(ledger), compiled);
      const odd = fold.unused.filter(
        ({ code }) => !['said-nothing', 'could-not-change', 'no-blink-table', 'earlier-fault', 'follows'].includes(code),
      );
      expect([name, odd]).toEqual([name, []]);
    }
  });
});
