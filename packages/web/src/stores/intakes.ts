/**
 * Sets checked in, on their way. Each is in IndexedDB before it is sent and leaves it only when the server has the job; its id is made here, so
 * that sending twice checks in once. The number comes from the server.
 */
import type { Job, NewJobInput } from '@veglia/contract';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { api, NotReached, signedInAs } from '../api.ts';
import { exclusively, later, whenBack } from '../sync/browser.ts';
import { refusalOf } from '../sync/reply.ts';
import { Sync } from '../sync/sync.ts';
import { local, type WaitingIntake } from './local.ts';

export const useIntakes = defineStore('intakes', () => {
  const waiting = shallowRef<WaitingIntake[]>([]);
  /** Jobs of this page's own intakes, until they are asked for. */
  const taken = new Map<string, Job>();

  const read = async (): Promise<WaitingIntake[]> => (await (await local()).getAll('intakes')).sort((a, b) => (a.at < b.at ? -1 : 1));
  const sync = new Sync<WaitingIntake, Job>({
    open: async () => (await read()).filter(({ refused, request }) => refused === undefined && request.by === signedInAs.value),
    together: () => 1,
    async send([intake]) {
      if (!intake) return { kind: 'wait' };
      try {
        const reply = await api.takeIn(intake.request);
        return reply.ok ? { kind: 'stored', sent: reply.value } : refusalOf(reply.problem);
      } catch (error) {
        if (!(error instanceof NotReached)) throw error;
        return { kind: 'wait', ...(error.afterMs === undefined ? {} : { afterMs: error.afterMs }) };
      }
    },
    async stored([intake], job) {
      if (!intake) return;
      taken.set(intake.id, job);
      await (await local()).delete('intakes', intake.id);
    },
    async refused(intake, why) {
      await (await local()).put('intakes', { ...intake, refused: why });
    },
    exclusively: exclusively('veglia-intakes'),
    later,
    told() {
      void read().then((now) => (waiting.value = now));
    },
  });

  async function load(): Promise<void> {
    waiting.value = await read();
    whenBack(sync);
    void sync.flush();
  }

  async function flush(): Promise<void> {
    await sync.flush();
    waiting.value = await read();
  }

  /** The job, where the server was there; neither, where it waits here now. Throws nothing that the server could say. */
  async function takeIn(request: NewJobInput): Promise<{ job?: Job; refused?: string }> {
    const intake: WaitingIntake = { id: request.id, at: new Date().toISOString(), request };
    await (await local()).put('intakes', intake);
    await flush();
    const job = taken.get(intake.id);
    taken.delete(intake.id);
    if (job) return { job };
    const left = await (await local()).get('intakes', intake.id);
    if (left?.refused === undefined) return {};
    // A refusal is told at the form, which still has everything: it doesn't wait here.
    await drop(intake.id);
    return { refused: left.refused };
  }

  async function drop(id: string): Promise<void> {
    await (await local()).delete('intakes', id);
    waiting.value = await read();
  }

  async function tryAgain({ refused: _, ...intake }: WaitingIntake): Promise<void> {
    await (await local()).put('intakes', intake);
    await flush();
  }

  return { waiting, load, takeIn, flush, drop, tryAgain };
});
