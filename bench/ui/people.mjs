/**
 * Ten people on ten jobs at once: how long an entry takes from being sent to being in another's hands, over the real server, its
 * WebSocket and the fetch that follows; and whether all is there afterwards.
 */
import { v7 as uuidv7 } from 'uuid';
import { signIn } from '../../scripts/lib/signIn.mjs';
import { WebSocket } from 'ws';

const people = 10;
const each = 30;
/** Between two entries of one person, milliseconds: quicker than any hand. */
const pace = 400;

const draft = (body) => ({ id: uuidv7(), at: new Date().toISOString(), basedOn: 0, body });
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** Milliseconds of each entry, and how many are stored. */
export async function peopleAtOnce(address) {
  const { by, cookie } = await signIn(address);
  const ask = async (path, body) => {
    const reply = await fetch(
      `${address}${path}`,
      body
        ? { method: 'POST', headers: { 'content-type': 'application/json', 'x-veglia': '1', cookie }, body: JSON.stringify(body) }
        : { headers: { cookie } },
    );
    if (!reply.ok) throw new Error(`${path}: ${reply.status}`);
    return reply.json();
  };
  const times = [];
  const sentAt = new Map();
  async function person() {
    const job = uuidv7();
    await ask('/api/jobs', {
      id: job,
      by,
      customer: null,
      plate: { maker: 'Quorvane', model: 'QK3-50', serial: '' },
      entries: [
        draft({ kind: 'job.opened', v: 2, set: { layout: 'led-tcon', family: 'quorvane.qk3' } }),
        draft({ kind: 'symptom.reported', v: 2, symptoms: ['sound-dark'] }),
      ],
    });
    // The other, looking on: told over the socket, fetches what it lacks.
    const seen = new Set();
    let after = 2;
    let fetching = Promise.resolve();
    const socket = new WebSocket(`${address.replace('http', 'ws')}/api/live`, { headers: { cookie } });
    await new Promise((open) => socket.once('open', open));
    socket.on('message', (data) => {
      const message = JSON.parse(data.toString());
      if (message.job !== job) return;
      fetching = fetching.then(async () => {
        if (message.seq <= after) return;
        const { entries } = await ask(`/api/jobs/${job}/entries?after=${after}`);
        for (const entry of entries) {
          after = Math.max(after, entry.seq);
          if (sentAt.has(entry.id) && !seen.has(entry.id)) times.push(performance.now() - sentAt.get(entry.id));
          seen.add(entry.id);
        }
      });
    });
    await pause(Math.random() * pace);
    for (let n = 0; n < each; n += 1) {
      const entry =
        n % 3 === 0
          ? draft({ kind: 'test.answered', v: 2, test: ['torch', 'menu', 'tap', 'outlet'][n % 4], outcome: 'cant-tell', sure: 'sure' })
          : draft({ kind: 'note.added', v: 1, text: `entry ${n}` });
      sentAt.set(entry.id, performance.now());
      await ask(`/api/jobs/${job}/entries`, { by, entries: [entry] });
      await pause(pace);
    }
    await pause(1500);
    await fetching;
    socket.terminate();
    const stored = (await ask(`/api/jobs/${job}`)).entries.length;
    return { stored, reached: seen.size };
  }
  const done = await Promise.all(Array.from({ length: people }, person));
  return {
    times,
    lost: done.reduce((sum, { stored, reached }) => sum + (each + 2 - stored) + (each - reached), 0),
  };
}
