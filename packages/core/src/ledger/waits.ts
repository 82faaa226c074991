/** Timers of a job, told from its ledger: so they run on wherever it is open, and after a reload. */
import type { Toward } from './bodies.ts';
import type { Entry } from './caseFile.ts';

/** A running timer. */
export interface Wait {
  /** The entry that started it. */
  readonly id: string;
  readonly name: string;
  /** Milliseconds since 1970. */
  readonly startedAt: number;
  readonly endsAt: number;
  readonly toward?: Toward;
}

/** Those that nobody has ended yet, soonest first. `live` are the entries that still count, in order. */
export function openWaits(live: readonly Entry[]): Wait[] {
  const open: Wait[] = [];
  for (const { id, at, body } of live) {
    if (body.kind === 'wait.started') {
      const startedAt = Date.parse(at);
      const { name, minutes, toward } = body;
      open.push({ id, name, startedAt, endsAt: startedAt + minutes * 60_000, ...(toward ? { toward } : {}) });
    } else if (body.kind === 'wait.ended') {
      // Older entries name the wait only by its name: the last of that name.
      const index = open.findLastIndex((one) =>
        body.wait === undefined ? one.name === body.name : one.id === body.wait || seqOf(one, live) === body.wait,
      );
      if (index >= 0) open.splice(index, 1);
    } else if (body.kind === 'test.answered' || body.kind === 'repair.done') {
      // A step that was answered waits for nothing any longer.
      const step = body.kind === 'test.answered' ? body.test : body.repair;
      const of = body.kind === 'test.answered' ? body.of : undefined;
      for (let index = open.length - 1; index >= 0; index -= 1)
        if (open[index]?.toward?.id === step && open[index]?.toward?.of === of) open.splice(index, 1);
    } else if (body.kind === 'job.closed') open.length = 0;
  }
  return open.sort((a, b) => a.endsAt - b.endsAt || (a.id < b.id ? -1 : 1));
}

const seqOf = (wait: Wait, live: readonly Entry[]): number | undefined => live.find(({ id }) => id === wait.id)?.seq;
