/** Nothing typed is lost, whatever the server answers and wherever anything fails: every operation once, and always, at each point. */
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { firstPauseMs, longestPauseMs, Sync, type Attempt, type SyncParts } from './sync.ts';

interface Item {
  readonly id: string;
  readonly bad?: boolean;
}

/** A store, a server and a clock of the test's own; `fails` is asked before each operation. */
class Bench {
  readonly waiting: Item[];
  readonly refused = new Map<string, string>();
  /** What the server has, in the order it came; an id that is there already is the same once more. */
  readonly server: string[] = [];
  readonly requests: string[][] = [];
  readonly pauses: number[] = [];
  reached: boolean | undefined;
  #later: (() => void) | undefined;
  #operations = 0;
  readonly sync: Sync<Item, number>;
  fails: (operation: string, nth: number) => boolean = () => false;
  answer: (batch: readonly Item[]) => Attempt<number> | undefined = () => undefined;

  constructor(items: readonly Item[], together = 4) {
    this.waiting = [...items];
    const operation = (name: string): void => {
      this.#operations += 1;
      if (this.fails(name, this.#operations)) throw new Error(`${name} failed`);
    };
    const parts: SyncParts<Item, number> = {
      open: async () => {
        operation('open');
        return Promise.resolve(this.waiting.filter(({ id }) => !this.refused.has(id)));
      },
      together: () => together,
      send: async (batch) => {
        this.requests.push(batch.map(({ id }) => id));
        // Before anything arrived, or after: either way the sender hears nothing.
        if (this.fails('lost before', ++this.#operations)) return { kind: 'wait' };
        const said = this.answer(batch);
        if (said) return said;
        if (batch.some(({ bad }) => bad)) return Promise.resolve({ kind: 'refused', why: 'bad' });
        for (const { id } of batch) if (!this.server.includes(id)) this.server.push(id);
        if (this.fails('lost after', ++this.#operations)) return { kind: 'wait' };
        return { kind: 'stored', sent: batch.length };
      },
      stored: async (batch) => {
        operation('stored');
        for (const item of batch) this.waiting.splice(this.waiting.indexOf(item), 1);
        return Promise.resolve();
      },
      refused: async (item, why) => {
        operation('refused');
        this.refused.set(item.id, why);
        return Promise.resolve();
      },
      exclusively: async (run) => {
        operation('lock');
        await run();
      },
      later: (ms, run) => {
        this.pauses.push(ms);
        this.#later = run;
        return () => (this.#later = undefined);
      },
      told: ({ reached }) => {
        if (reached !== undefined) this.reached = reached;
      },
    };
    this.sync = new Sync(parts);
  }

  get operations(): number {
    return this.#operations;
  }

  /** Lets the pause pass. */
  async again(): Promise<void> {
    const run = this.#later;
    this.#later = undefined;
    run?.();
    await this.sync.flush();
  }
}

const items = (n: number, bad: readonly number[] = []): Item[] =>
  Array.from({ length: n }, (_, index) => ({ id: `e${index}`, ...(bad.includes(index) ? { bad: true } : {}) }));
const ids = (all: readonly Item[]): string[] => all.map(({ id }) => id);

describe('sent', () => {
  test('in the order of writing, so many at once, and let go of', async () => {
    const bench = new Bench(items(10));
    await bench.sync.flush();
    expect(bench.server).toEqual(ids(items(10)));
    expect(bench.requests.map((one) => one.length)).toEqual([4, 4, 2]);
    expect([bench.waiting, bench.reached, bench.pauses]).toEqual([[], true, []]);
  });

  test('with nothing to send nothing is known of the server', async () => {
    const bench = new Bench([]);
    await bench.sync.flush();
    expect([bench.reached, bench.requests, bench.pauses]).toEqual([undefined, [], []]);
  });

  test('one flush at a time, however often it is asked for', async () => {
    const bench = new Bench(items(6));
    await Promise.all([bench.sync.flush(), bench.sync.flush(), bench.sync.flush()]);
    expect(bench.requests.flat()).toEqual(ids(items(6)));
  });
});

describe('a server that can’t, or says not now', () => {
  test('is waited for with growing pauses up to the longest, refuses nothing, and gets all once it can', async () => {
    const bench = new Bench(items(5));
    bench.answer = () => ({ kind: 'wait' });
    await bench.sync.flush();
    for (let n = 0; n < 9; n += 1) await bench.again();
    expect(bench.pauses.slice(0, 4)).toEqual([firstPauseMs, 2 * firstPauseMs, 4 * firstPauseMs, 8 * firstPauseMs]);
    expect(Math.max(...bench.pauses)).toBe(longestPauseMs);
    expect([bench.refused.size, bench.waiting.length, bench.reached]).toEqual([0, 5, false]);
    bench.answer = () => undefined;
    await bench.again();
    expect([bench.server, bench.waiting, bench.reached]).toEqual([ids(items(5)), [], true]);
    // Once reached, the next trouble begins with a short pause again.
    bench.waiting.push({ id: 'later' });
    bench.answer = () => ({ kind: 'wait' });
    await bench.sync.flush();
    expect(bench.pauses.at(-1)).toBe(firstPauseMs);
  });

  test('may ask for a longer pause', async () => {
    const bench = new Bench(items(1));
    bench.answer = () => ({ kind: 'wait', afterMs: 30_000 });
    await bench.sync.flush();
    expect(bench.pauses).toEqual([30_000]);
  });
});

describe('a refusal', () => {
  test('that names its item refuses that one, and the rest goes on', async () => {
    const bench = new Bench(items(4));
    bench.answer = (batch) => {
      const at = batch.findIndex(({ id }) => id === 'e2');
      return at < 0 ? undefined : { kind: 'refused', why: 'some are not so', named: [{ place: at, why: 'not so' }] };
    };
    await bench.sync.flush();
    expect([...bench.refused]).toEqual([['e2', 'not so']]);
    expect(bench.server).toEqual(['e0', 'e1', 'e3']);
    expect(ids(bench.waiting)).toEqual(['e2']);
    expect(bench.requests).toHaveLength(2);
  });

  test('that names nothing is found by sending one by one; those behind go together again', async () => {
    const bench = new Bench(items(9, [1]));
    await bench.sync.flush();
    expect([...bench.refused.keys()]).toEqual(['e1']);
    expect(bench.server).toEqual(ids(items(9)).filter((id) => id !== 'e1'));
    expect(bench.requests.map((one) => one.length)).toEqual([4, 1, 1, 1, 1, 4, 1]);
  });

  test('that names what isn’t in the batch is one that names nothing', async () => {
    const bench = new Bench(items(2));
    bench.answer = (batch) => (batch.length > 1 ? { kind: 'refused', why: 'x', named: [{ place: 7, why: 'y' }] } : undefined);
    await bench.sync.flush();
    expect([bench.server, bench.refused.size]).toEqual([['e0', 'e1'], 0]);
  });

  test('waits for a person: it is not sent again by itself', async () => {
    const bench = new Bench(items(1, [0]));
    await bench.sync.flush();
    await bench.sync.flush();
    expect(bench.requests).toHaveLength(1);
    expect(bench.waiting).toHaveLength(1);
  });
});

describe('whatever fails', () => {
  const bad = [2, 5];
  const end = (bench: Bench): void => {
    expect(bench.server).toEqual(ids(items(7)).filter((_, index) => !bad.includes(index)));
    expect(ids(bench.waiting)).toEqual(['e2', 'e5']);
    expect([...bench.refused.keys()]).toEqual(['e2', 'e5']);
  };

  test('once, at any point: nothing is lost, nothing is there twice, and the order stays', async () => {
    const calm = new Bench(items(7, bad));
    await calm.sync.flush();
    end(calm);
    expect(calm.operations).toBeGreaterThan(25);
    for (let nth = 1; nth <= calm.operations; nth += 1) {
      const bench = new Bench(items(7, bad));
      bench.fails = (_, at) => at === nth;
      await bench.sync.flush();
      bench.fails = () => false;
      await bench.again();
      end(bench);
    }
  });

  test.each(['open', 'lost before', 'lost after', 'stored', 'refused', 'lock'])(
    '%s always: all stays, and goes once it works',
    async (name) => {
      const bench = new Bench(items(7, bad));
      bench.fails = (operation) => operation === name;
      for (let n = 0; n < 4; n += 1) await bench.again();
      // What the server has may still wait here; what it hasn't does.
      for (const { id } of items(7)) expect(bench.server.includes(id) || ids(bench.waiting).includes(id)).toBe(true);
      bench.fails = () => false;
      await bench.again();
      end(bench);
    },
  );

  test('at random, again and again', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.boolean(), { minLength: 30, maxLength: 80 }), fc.integer({ min: 1, max: 5 }), async (fate, together) => {
        const bench = new Bench(items(7, bad), together);
        bench.fails = (_, nth) => fate[nth % fate.length] ?? false;
        for (let n = 0; n < 5; n += 1) await bench.again();
        for (const { id } of items(7)) expect(bench.server.includes(id) || ids(bench.waiting).includes(id)).toBe(true);
        expect(new Set(bench.server).size).toBe(bench.server.length);
        bench.fails = () => false;
        await bench.again();
        end(bench);
      }),
      { seed: 7, numRuns: 200 },
    );
  });
});
