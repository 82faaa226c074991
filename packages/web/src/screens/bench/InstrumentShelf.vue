<script setup lang="ts">
/** Instruments opened in place, under the steps, each by its key; one at a time. */
import type { Body, CaseFold, CompiledPack, Entry } from '@veglia/core';
import { defineAsyncComponent, nextTick, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import KeysSheet from './KeysSheet.vue';

defineProps<{ fold: CaseFold; compiled: CompiledPack; entries: readonly Entry[]; family: string | undefined }>();
defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const BlinkInJob = defineAsyncComponent(() => import('../blink/BlinkInJob.vue'));
const HeatRounds = defineAsyncComponent(() => import('./HeatRounds.vue'));
const StimulusLog = defineAsyncComponent(() => import('./StimulusLog.vue'));
const PhotoSheet = defineAsyncComponent(() => import('./PhotoSheet.vue'));
const TeardownList = defineAsyncComponent(() => import('./TeardownList.vue'));
const keys = { l: 'light', h: 'heat', j: 'stimulus', z: 'teardown', i: 'photo', '?': 'keys' } as const;
type Instrument = (typeof keys)[keyof typeof keys];
const opened = ref<Instrument>();
const shelf = ref<HTMLElement>();

/** What was opened lies under its keys, which come to the top: it is no use below the edge of the screen. */
async function toggle(one: Instrument): Promise<void> {
  opened.value = opened.value === one ? undefined : one;
  await nextTick();
  if (opened.value) shelf.value?.scrollIntoView({ block: 'start' });
}
/** True where the key was one of theirs. */
function press(key: string): boolean {
  if (!Object.hasOwn(keys, key)) return false;
  void toggle(keys[key as keyof typeof keys]);
  return true;
}
defineExpose({ press, close: (): void => (opened.value = undefined) });
</script>

<template>
  <div ref="shelf" class="instruments" role="group" :aria-label="t('bench.instruments.title')">
    <button
      v-for="(name, key) in keys"
      :key="key"
      type="button"
      class="push"
      :aria-expanded="opened === name"
      :data-test="name === 'light' ? 'read-light' : `open-${name}`"
      @click="toggle(name)"
    >
      <KeyCap :label="key.toUpperCase()" />{{ t(`bench.instruments.${name}`) }}
    </button>
  </div>
  <BlinkInJob
    v-if="opened === 'light'"
    :compiled="compiled"
    :entries="entries"
    :layout="fold.set.layout"
    :family="family"
    @write="(bodies) => $emit('write', bodies)"
  />
  <HeatRounds v-if="opened === 'heat'" :fold="fold" :compiled="compiled" :entries="entries" @write="(bodies) => $emit('write', bodies)" />
  <StimulusLog
    v-if="opened === 'stimulus'"
    :fold="fold"
    :compiled="compiled"
    :entries="entries"
    @write="(bodies) => $emit('write', bodies)"
  />
  <TeardownList
    v-if="opened === 'teardown'"
    :fold="fold"
    :compiled="compiled"
    :entries="entries"
    @write="(bodies) => $emit('write', bodies)"
  />
  <PhotoSheet v-if="opened === 'photo'" @write="(bodies) => $emit('write', bodies)" />
  <KeysSheet v-if="opened === 'keys'" />
</template>

<style scoped>
.instruments {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  /* Under the band that says how the set stands. */
  scroll-margin-top: 60px;
}
</style>
