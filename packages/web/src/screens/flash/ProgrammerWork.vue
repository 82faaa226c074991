<script setup lang="ts">
/** A step done by a programmer of this server: started, followed, broken off. What came of it is in the ledger; an identification is for a person to judge. */
import type { ImageFacts, ProgrammerRun, StartRun } from '@veglia/contract';
import { copyForecast, formatBytes, sizeOf, type CopyForecast, type FlashAim, type FlashSession, type MemoryArea } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { NotReached } from '../../api.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import KeyCap from '../../parts/KeyCap.vue';
import { clockTime, useNow } from '../../stores/clock.ts';
import { useJob } from '../../stores/job.ts';
import type { ProgrammerBench } from '../../stores/programmers.ts';
import { useSession } from '../../stores/session.ts';
import { cap } from '../bench/keymap.ts';
import { minutesRange } from './titles.ts';

const props = defineProps<{
  bench: ProgrammerBench;
  session: FlashSession;
  work: StartRun['work'];
  area?: MemoryArea;
  of?: FlashAim['of'];
  cold?: boolean;
  facts?: ImageFacts;
}>();
const { t } = useI18n();
const job = useJob();
const person = useSession();
const now = useNow();
const refused = ref<readonly string[]>([]);
const { programmers, programmer, chosen, chip, run, samples, away } = props.bench;
const running = computed(() => (run.value?.endedAt === null ? run.value : undefined));
const trouble = computed(() => {
  const result = run.value?.result;
  return result && 'detail' in result ? result : undefined;
});
const forecast = computed((): CopyForecast | undefined => {
  const bytes = running.value?.bytes ?? (props.area ? sizeOf(props.session, props.area) : undefined);
  return running.value === undefined || bytes === undefined ? undefined : copyForecast(props.session.opened.memory, bytes, samples.value);
});
const elapsed = computed(() => (running.value ? (now.value - Date.parse(running.value.startedAt)) / 1000 : 0));

async function start(): Promise<void> {
  const by = person.person?.id;
  const id = job.job?.id;
  if (by === undefined || id === undefined) return;
  refused.value = [];
  const asked: StartRun = {
    id: uuidv7(),
    by,
    job: id,
    session: props.session.id,
    work: props.work,
    ...(props.area === undefined ? {} : { area: props.area }),
    ...(props.of === undefined ? {} : { of: props.of }),
    ...(props.cold === true ? { cold: true } : {}),
    ...(chip.value === '' ? {} : { chip: chip.value }),
    ...(props.work === 'read' && props.facts ? { facts: props.facts } : {}),
  };
  try {
    // The server goes by its ledger: what was recorded here a moment ago has to be there.
    await job.flush();
    const reply = await props.bench.start(asked);
    if (!reply.ok) refused.value = [reply.problem.title, ...(reply.problem.problems ?? []).map(({ sentence }) => sentence)];
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refused.value = [t('flash.programmer.away')];
  }
}
const touches = computed(() => props.work === 'erase' || props.work === 'program');
const outcome = (done: ProgrammerRun): string => {
  const { result } = done;
  if (!result) return '';
  if ('detail' in result) return t(`flash.programmer.trouble.${result.kind}`);
  if (result.kind === 'found')
    return t('flash.programmer.found', {
      chip: [result.maker, result.chip].filter(Boolean).join(' '),
      size: formatBytes(result.bytes),
      code: result.code ?? '–',
    });
  return 'first' in result ? t(`flash.programmer.result.${result.kind}`, { at: `0x${result.first.toString(16)}` }) : '';
};
</script>

<template>
  <div v-if="programmers.length > 0" class="programmer" data-test="programmer">
    <ChoiceField
      v-if="programmers.length > 1 && !running"
      id="flash-programmer"
      v-model="chosen"
      :label="t('flash.programmer.which')"
      :options="programmers.map(({ id, name }) => ({ value: id, label: name }))"
      :none="programmer?.name"
    />
    <ChoiceField
      v-if="trouble?.kind === 'several-chips'"
      id="flash-which-chip"
      v-model="chip"
      :label="t('flash.programmer.whichChip')"
      :options="(trouble.chips ?? []).map((value) => ({ value, label: value }))"
    />
    <template v-if="running">
      <progress v-if="running.done !== null && running.bytes !== null" :value="running.done" :max="running.bytes" />
      <span data-test="programmer-progress">
        {{ t(`flash.programmer.doing.${running.work}`, { name: programmer?.name ?? '' }) }}
        <template v-if="running.done !== null && running.bytes !== null">
          {{ t('flash.programmer.done', { done: formatBytes(running.done), of: formatBytes(running.bytes) }) }}
        </template>
        {{ t('flash.programmer.elapsed', { time: clockTime(elapsed) }) }}
        <template v-if="forecast && forecast.most >= 0.2">
          {{ t(forecast.usual ? 'flash.copy.usual' : 'flash.copy.left', { minutes: minutesRange(forecast) }) }}
        </template>
      </span>
      <button type="button" class="plain" data-test="programmer-cancel" @click="props.bench.cancel(person.person?.id ?? '')">
        {{ t(touches ? 'flash.programmer.breakOff' : 'flash.programmer.cancel') }}
      </button>
    </template>
    <button v-else type="button" class="push full" data-test="programmer-start" @click="start">
      <KeyCap :label="cap('confirm')" />{{ t(`flash.programmer.start.${work}`, { name: programmer?.name ?? '' }) }}
    </button>
    <p v-if="running && touches" class="soft wide">{{ t('flash.programmer.keepOff') }}</p>
    <p v-if="run && !running && outcome(run)" class="wide" :class="{ alarm: trouble }" role="status" data-test="programmer-result">
      {{ outcome(run) }}
    </p>
    <p v-if="trouble?.detail" class="soft wide reading">{{ trouble.detail }}</p>
    <ul v-if="refused.length > 0" class="alarm wide" role="alert" data-test="programmer-refused">
      <li v-for="one in refused" :key="one">{{ one }}</li>
    </ul>
    <p v-if="away" class="alarm wide" role="alert">{{ t('flash.programmer.away') }}</p>
  </div>
</template>

<style scoped>
.programmer {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 12px;
}
.wide {
  flex-basis: 100%;
}
.programmer :deep(.el-select) {
  min-width: 240px;
}
progress {
  width: 180px;
  align-self: center;
  accent-color: var(--accent);
}
</style>
