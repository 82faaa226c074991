/** A ledger of two hundred entries, as a long day on one set leaves it: a simulated set, each step walked, answered and noted. */
import { signIn } from '../../scripts/lib/signIn.mjs';
import { readPackFolder } from '@veglia/contract/node';
import { compilePack, defaultSettings, foldCase, liveEntries, progressOf, type Body, type Entry } from '@veglia/core';
import { SimulatedSet } from '@veglia/simulators';
import { v7 as uuidv7 } from 'uuid';
import { inRoot } from '../../scripts/lib/paths.mjs';

export const longLedger = 200;
const start = Date.parse('2026-03-02T08:00:00Z');

export interface LongJob {
  readonly family: string;
  readonly bodies: readonly Body[];
}

export async function longJob(): Promise<LongJob> {
  const compiled = compilePack(await readPackFolder(inRoot('knowledge')));
  const layout = compiled.layouts.get('led-tcon');
  const family = compiled.pack.families.find((one) => one.layouts.includes('led-tcon'));
  if (!layout || !family) throw new Error('the pack has no led-tcon');
  // Two faults: such a set keeps a bench busy.
  const set = new SimulatedSet({ layout, family, faults: ['panel.rail-short-cap', 'main.startup-memory'], seed: 3 });
  const bodies: Body[] = [
    { kind: 'job.opened', v: 3, set: { layout: 'led-tcon', family: family.id } },
    { kind: 'symptom.reported', v: 2, symptoms: [set.complaint() ?? 'lit-blank'] },
    { kind: 'caution.read', v: 1, cautions: compiled.pack.cautions.map(({ id }) => id) },
  ];
  const entries = (): Entry[] =>
    bodies.map((body, index) => ({
      id: `e${index}`,
      seq: index + 1,
      at: new Date(start + index * 60_000).toISOString(),
      by: 'a',
      basedOn: index,
      body,
    }));
  const tests = (compiled.testsOf.get('led-tcon') ?? []).filter((test) => !test.of);
  for (let turn = 0; bodies.length < longLedger - 4; turn += 1) {
    const test = tests[turn % tests.length];
    if (!test) break;
    for (let moves = 0; moves < 8; moves += 1) {
      const progress = progressOf(
        { kind: 'test', id: test.id },
        liveEntries(entries()),
        compiled,
        'led-tcon',
        start + bodies.length * 60_000,
      );
      if (!progress?.next) break;
      const { change } = progress.next;
      bodies.push(change.verified ? { ...change, volts: { bulk: 3 } } : change);
    }
    const { outcome } = set.perform(test, undefined, 0);
    bodies.push({ kind: 'test.answered', v: 2, test: test.id, outcome, sure: 'sure', walked: true });
    if (turn % 3 === 0) bodies.push({ kind: 'note.added', v: 1, text: `looked at ${test.id}` });
  }
  const input = { set: { layout: 'led-tcon', family: family.id }, settings: defaultSettings, entries: entries() };
  if (foldCase(input, compiled).closed) throw new Error('a long job that is closed is none');
  return { family: family.id, bodies };
}

/** Posted as the app does it; returns the job's id. */
export async function storeLongJob(address: string): Promise<string> {
  const { bodies } = await longJob();
  const { by, cookie } = await signIn(address);
  const id = uuidv7();
  const drafts = bodies.map((body, index) => ({
    id: uuidv7(),
    at: new Date(Date.now() - (bodies.length - index) * 60_000).toISOString(),
    basedOn: index,
    body,
  }));
  const post = async (path: string, body: object): Promise<void> => {
    const reply = await fetch(`${address}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-veglia': '1', cookie },
      body: JSON.stringify(body),
    });
    if (!reply.ok) throw new Error(`${path}: ${reply.status} ${await reply.text()}`);
  };
  await post('/api/jobs', {
    id,
    by,
    customer: null,
    plate: { maker: 'Pelorane', model: 'PT9-40', serial: '' },
    entries: drafts.slice(0, 40),
  });
  for (let from = 40; from < drafts.length; from += 40)
    await post(`/api/jobs/${id}/entries`, { by, entries: drafts.slice(from, from + 40) });
  return id;
}
