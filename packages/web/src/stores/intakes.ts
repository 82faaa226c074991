/**
 * Sets taken in while the server was away. Each is in IndexedDB before it is sent and leaves it only when the server has the job; its
 * id is made here, so that sending twice takes in once. The number comes from the server.
 */
import type { Job, NewJobInput } from '@veglia/contract';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { api, NotReached } from '../api.ts';
import { local, type WaitingIntake } from './local.ts';

/** Between two attempts, milliseconds. */
const retryAfter = 3000;

export const useIntakes = defineStore('intakes', () => {
  const waiting = shallowRef<WaitingIntake[]>([]);
  let timer: ReturnType<typeof setTimeout> | undefined;

  async function load(): Promise<void> {
    waiting.value = (await (await local()).getAll('intakes')).sort((a, b) => (a.at < b.at ? -1 : 1));
    if (waiting.value.some((one) => one.refused === undefined)) void flush();
  }

  /** The job, where the server was there; undefined where it waits here now. Throws nothing that the server could say. */
  async function takeIn(request: NewJobInput): Promise<{ job?: Job; refused?: string }> {
    const intake: WaitingIntake = { id: request.id, at: new Date().toISOString(), request };
    await (await local()).put('intakes', intake);
    const result = await send(intake);
    // A refusal is told at the form, which still has everything: it doesn't wait here.
    if (result.refused !== undefined) await (await local()).delete('intakes', intake.id);
    await load();
    return result;
  }

  async function send(intake: WaitingIntake): Promise<{ job?: Job; refused?: string }> {
    try {
      const reply = await api.takeIn(intake.request);
      if (!reply.ok) return { refused: [reply.problem.title, ...(reply.problem.problems ?? []).map((one) => one.sentence)].join(' ') };
      await (await local()).delete('intakes', intake.id);
      return { job: reply.value };
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      return {};
    }
  }

  async function flush(): Promise<void> {
    clearTimeout(timer);
    let away = false;
    await navigator.locks.request('veglia-intakes', async () => {
      for (const intake of await (await local()).getAll('intakes')) {
        if (intake.refused !== undefined) continue;
        const { job, refused } = await send(intake);
        if (refused !== undefined) await (await local()).put('intakes', { ...intake, refused });
        else if (!job) away = true;
      }
    });
    waiting.value = await (await local()).getAll('intakes');
    if (away) timer = setTimeout(() => void flush(), retryAfter);
  }

  async function drop(id: string): Promise<void> {
    await (await local()).delete('intakes', id);
    await load();
  }

  return { waiting, load, takeIn, flush, drop };
});
