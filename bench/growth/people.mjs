/** Somebody at a bench, as the app behaves: listens, fetches what others wrote, sends its own until it is acknowledged, looks at the shelves. */
import { setTimeout as pause } from 'node:timers/promises';
import { v7 as uuidv7 } from 'uuid';
import WebSocket from 'ws';

const patience = 15_000;

export class Person {
  /** What was acknowledged to this one: id, seq, job. */
  acknowledged = [];
  /** Milliseconds from another's sending to its arrival here. */
  delays = [];
  seen = new Set();
  lists = [];
  retries = 0;
  reconnects = 0;
  #lastSeq = 0;
  #fetching = false;
  #again = false;
  #ended = false;

  #news = new Set();
  #looking;
  #lookedAt = -Infinity;

  /** `sentAt`: by entry id, when it was sent first (milliseconds of this machine). `atShelves`: sees all sets, and fetches the cards that changed. */
  constructor({ address, cookie, id, job, sentAt, atShelves }) {
    Object.assign(this, { address, cookie, id, job, sentAt, atShelves });
  }

  async #ask(path, options = {}) {
    const reply = await fetch(`${this.address}${path}`, {
      ...options,
      headers: { cookie: this.cookie, 'x-veglia': '1', 'content-type': 'application/json' },
      signal: AbortSignal.timeout(patience),
    });
    const text = await reply.text();
    return { status: reply.status, body: reply.ok ? JSON.parse(text) : undefined };
  }

  open() {
    const socket = new WebSocket(`${this.address.replace('http', 'ws')}/api/live`, {
      headers: { cookie: this.cookie, origin: this.address },
    });
    this.socket = socket;
    socket.on('open', () => {
      socket.send(JSON.stringify({ watch: [this.job] }));
      void this.catchUp();
    });
    socket.on('message', (data) => {
      const message = JSON.parse(String(data));
      const grown = message.jobs ?? [message];
      if (message.resync || grown.some(({ job, seq }) => job === this.job && seq > this.#lastSeq)) void this.catchUp();
      if (message.resync) return;
      for (const { job } of grown) this.#news.add(job);
      // As the app does: at the Shelves a moment later, at a bench once in a while for the timers.
      const delay = this.atShelves ? Math.max(250, this.#lookedAt + 3000 - performance.now()) : 10_000;
      this.#looking ??= setTimeout(() => {
        this.#looking = undefined;
        this.#lookedAt = performance.now();
        const ids = [...this.#news].slice(0, 50);
        this.#news.clear();
        if (!this.#ended) void this.look(`/api/jobs?ids=${ids.join(',')}&limit=50`);
      }, delay);
    });
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (this.#ended) return;
      this.reconnects += 1;
      // Not all at once: what a page does, too.
      setTimeout(() => this.#ended || this.open(), 100 + Math.random() * 900);
    });
  }

  /** One request at a time, and another where something came meanwhile. */
  async catchUp() {
    if (this.#fetching) {
      this.#again = true;
      return;
    }
    this.#fetching = true;
    try {
      const { status, body } = await this.#ask(`/api/jobs/${this.job}/entries?after=${this.#lastSeq}`);
      if (status !== 200) throw new Error(`status ${status}`);
      const now = performance.now();
      for (const { id, seq } of body.entries) {
        const sent = this.sentAt.get(id);
        if (sent !== undefined && sent.by !== this.id && !this.seen.has(id)) this.delays.push(now - sent.at);
        this.seen.add(id);
        this.#lastSeq = Math.max(this.#lastSeq, seq);
      }
    } catch {
      this.#again = true;
      await pause(100);
    }
    this.#fetching = false;
    if (this.#again && !this.#ended) {
      this.#again = false;
      void this.catchUp();
    }
  }

  /** The same entry until it is acknowledged. */
  async write(said) {
    const id = uuidv7();
    this.sentAt.set(id, { at: performance.now(), by: this.id });
    const body = JSON.stringify({
      by: this.id,
      entries: [{ id, at: new Date().toISOString(), basedOn: 0, body: said }],
    });
    for (;;) {
      try {
        const reply = await this.#ask(`/api/jobs/${this.job}/entries`, { method: 'POST', body });
        if (reply.status === 200) {
          this.acknowledged.push({ id, seq: reply.body.entries[0].seq, job: this.job });
          return;
        }
        if (reply.status < 500) throw new Error(`refused with ${reply.status}`);
      } catch (error) {
        if (/refused/.test(String(error))) throw error;
      }
      this.retries += 1;
      await pause(100 + Math.random() * 200);
    }
  }

  async look(path = '/api/jobs?state=open&order=shelf&limit=200') {
    const began = performance.now();
    try {
      if ((await this.#ask(path)).status === 200) this.lists.push(performance.now() - began);
    } catch {
      this.retries += 1;
    }
  }

  end() {
    this.#ended = true;
    clearTimeout(this.#looking);
    this.socket?.terminate();
  }
}
