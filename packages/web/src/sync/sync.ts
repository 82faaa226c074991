/**
 * What was typed, on its way to the server: kept first, sent in order, let go only once the server has said that it is stored. One engine
 * for entries, intakes and photos; store, server, clock and lock are handed in.
 *
 * A server that can't be reached, or that says it is in trouble itself, is waited for with growing pauses and refuses nothing. Only a reply
 * that is about an item refuses that item; it then waits for a person, and the rest goes on. A batch that is refused as a whole is sent one
 * by one. An item is sent again whenever it isn't certain that it arrived: its id makes that the same once more.
 */

/** What became of one attempt. */
export type Attempt<Sent> =
  | { readonly kind: 'stored'; readonly sent: Sent }
  /** Not reached, or in trouble of its own: nothing is known of the items. `afterMs`: asked for by the server. */
  | { readonly kind: 'wait'; readonly afterMs?: number }
  /** `named`: places in the batch that the reply is about, each with its own reason; left out: it may be any of them. */
  | { readonly kind: 'refused'; readonly why: string; readonly named?: readonly { readonly place: number; readonly why: string }[] };

export interface SyncParts<Item, Sent> {
  /** What waits and isn't refused, oldest first. */
  open(): Promise<readonly Item[]>;
  /** How many of the first are sent together; at least one. */
  together(open: readonly Item[]): number;
  send(batch: readonly Item[]): Promise<Attempt<Sent>>;
  /** They are stored: let go of here. What else is to be told of it must not throw. */
  stored(batch: readonly Item[], sent: Sent): Promise<void>;
  refused(item: Item, why: string): Promise<void>;
  /** One at a time, across all that share the same store. */
  exclusively(run: () => Promise<void>): Promise<void>;
  /** Runs later; the returned function calls it off. */
  later(ms: number, run: () => void): () => void;
  /** Told after each round: whether the last attempt reached the server; undefined where there was nothing to send. */
  told?(state: { readonly reached: boolean | undefined }): void;
}

/** Pauses between attempts, milliseconds: doubled from the first to the longest (values of ours). */
export const firstPauseMs = 1000;
export const longestPauseMs = 60_000;

export class Sync<Item, Sent> {
  readonly #parts: SyncParts<Item, Sent>;
  #running: Promise<void> = Promise.resolve();
  #failures = 0;
  #attempts = 0;
  #callOff: (() => void) | undefined;

  constructor(parts: SyncParts<Item, Sent>) {
    this.#parts = parts;
  }

  /** Sends what waits, now; resolves once it is sent or waits for another attempt. Never throws. */
  flush(): Promise<void> {
    this.#running = this.#running.then(() => this.#round());
    return this.#running;
  }

  /** Calls off the next attempt. */
  stop(): void {
    this.#callOff?.();
    this.#callOff = undefined;
  }

  async #round(): Promise<void> {
    this.stop();
    let wait: { afterMs?: number } | undefined;
    this.#attempts = 0;
    try {
      await this.#parts.exclusively(async () => {
        wait = await this.#sendAll();
      });
    } catch {
      // The browser's own store or lock failed: what waits is still there, and is tried again.
      wait = {};
    }
    if (wait === undefined) this.#failures = 0;
    else {
      const pause = Math.min(longestPauseMs, firstPauseMs * 2 ** this.#failures);
      this.#failures += 1;
      this.#callOff = this.#parts.later(Math.max(pause, wait.afterMs ?? 0), () => void this.flush());
    }
    this.#parts.told?.({ reached: wait ? false : this.#attempts > 0 ? true : undefined });
  }

  /** Undefined once nothing waits any more. */
  async #sendAll(): Promise<{ afterMs?: number } | undefined> {
    /** After a refusal of many, as many as this go one by one. */
    let singly = 0;
    for (let open = await this.#parts.open(); open.length > 0; open = await this.#parts.open()) {
      const size = singly > 0 ? 1 : Math.max(1, Math.min(open.length, this.#parts.together(open)));
      const batch = open.slice(0, size);
      this.#attempts += 1;
      const attempt = await this.#parts.send(batch);
      if (attempt.kind === 'wait') return attempt.afterMs === undefined ? {} : { afterMs: attempt.afterMs };
      singly = Math.max(0, singly - 1);
      if (attempt.kind === 'stored') {
        this.#failures = 0;
        await this.#parts.stored(batch, attempt.sent);
        continue;
      }
      const named = (attempt.named ?? []).filter(({ place }) => place < batch.length);
      const [only] = batch;
      if (batch.length === 1 && only !== undefined) await this.#parts.refused(only, named[0]?.why ?? attempt.why);
      else if (named.length > 0)
        for (const { place, why } of named) {
          const item = batch[place];
          if (item !== undefined) await this.#parts.refused(item, why);
        }
      else singly = batch.length;
    }
    return undefined;
  }
}
