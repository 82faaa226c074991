/** The server's chip programmers, and the work one of them is at: whoever comes back to it finds it again. */
import type { Programmer, ProgrammerRun, StartRun } from '@veglia/contract';
import { useLocalStorage } from '@vueuse/core';
import { computed, onMounted, onUnmounted, ref, shallowRef, type ComputedRef, type Ref } from 'vue';
import { api, NotReached, type Reply } from '../api.ts';

const pollMs = 700;
/** The one this bench works with. */
const chosen = useLocalStorage('veglia.programmer', '');

/** One look at a run: seconds since its start, bytes done. */
export type RunSample = readonly [seconds: number, done: number];
/** Programmers of the server and a run for one session. */
export interface ProgrammerBench {
  readonly programmers: Readonly<Ref<readonly Programmer[]>>;
  readonly programmer: ComputedRef<Programmer | undefined>;
  readonly chosen: Ref<string>;
  /** Of several types that answer alike, the one that is printed on the chip; empty: none was asked for. */
  readonly chip: Ref<string>;
  readonly run: Readonly<Ref<ProgrammerRun | undefined>>;
  readonly samples: Readonly<Ref<readonly RunSample[]>>;
  /** The server is not reached. */
  readonly away: Readonly<Ref<boolean>>;
  start(asked: StartRun): Promise<Reply<ProgrammerRun>>;
  cancel(by: string): Promise<void>;
}

/** Those for a kind of memory. `ended` is called once for each run that came to its end while this is on the screen. */
export function useProgrammers(
  session: () => string,
  memory: () => Programmer['memories'][number],
  ended: (run: ProgrammerRun) => void,
): ProgrammerBench {
  const programmers = shallowRef<readonly Programmer[]>([]);
  const run = shallowRef<ProgrammerRun>();
  const samples = shallowRef<readonly RunSample[]>([]);
  const away = ref(false);
  const chip = ref('');
  let timer: ReturnType<typeof setTimeout> | undefined;

  async function reached<T>(asked: () => Promise<Reply<T>>): Promise<Reply<T> | undefined> {
    try {
      const reply = await asked();
      away.value = false;
      return reply;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      away.value = true;
      return undefined;
    }
  }
  function take(found: ProgrammerRun): void {
    run.value = found;
    if (found.done !== null) samples.value = [...samples.value, [(Date.now() - Date.parse(found.startedAt)) / 1000, found.done]];
    if (found.endedAt === null) timer = setTimeout(() => void look(found.id), pollMs);
    else ended(found);
  }
  async function look(id: string): Promise<void> {
    const reply = await reached(() => api.run(id));
    if (reply?.ok) take(reply.value);
    else if (reply === undefined) timer = setTimeout(() => void look(id), pollMs * 3);
    else run.value = undefined;
  }
  onMounted(async () => {
    const reply = await reached(() => api.programmers());
    if (!reply?.ok) return;
    programmers.value = reply.value.programmers.filter(({ memories }) => memories.includes(memory()));
    for (const { running } of reply.value.programmers) {
      const found = running === null ? undefined : await reached(() => api.run(running));
      if (found?.ok && found.value.session === session()) {
        chosen.value = found.value.programmer;
        take(found.value);
      }
    }
  });
  onUnmounted(() => clearTimeout(timer));

  const programmer = computed(() => programmers.value.find(({ id }) => id === chosen.value) ?? programmers.value[0]);
  return {
    programmers,
    programmer,
    chosen,
    chip,
    run,
    samples,
    away,
    async start(asked) {
      samples.value = [];
      run.value = undefined;
      const reply = await api.startRun(programmer.value?.id ?? '', asked);
      if (reply.ok) take(reply.value);
      return reply;
    },
    async cancel(by) {
      const id = run.value?.id;
      if (id !== undefined) await reached(() => api.cancelRun(id, by));
    },
  };
}
