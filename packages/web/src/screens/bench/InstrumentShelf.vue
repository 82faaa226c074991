<script setup lang="ts">
/** Instruments opened in place, under the steps, each by its key; one at a time. */
import type { ShopSettings } from '@veglia/contract';
import type { Body, BodyOf, CaseFold, CompiledPack, Entry, NextStep } from '@veglia/core';
import { defineAsyncComponent, nextTick, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import KeysSheet from './KeysSheet.vue';
import { cap, type Pressed, type BenchCommand } from './keymap.ts';

defineProps<{
  fold: CaseFold;
  compiled: CompiledPack;
  entries: readonly Entry[];
  family: string | undefined;
  shop: ShopSettings;
  /** All that can be done, left out or not. */
  steps: readonly NextStep[];
  /** The step that is selected. */
  current: string | undefined;
}>();
defineEmits<{
  write: [bodies: Body[]];
  take: [step: NextStep];
  charge: [volts: Record<string, number>];
  change: [change: Partial<BodyOf<'set.changed'>>];
}>();
const { t } = useI18n();
const BlinkInJob = defineAsyncComponent(() => import('../blink/BlinkInJob.vue'));
const RailSheet = defineAsyncComponent(() => import('./RailSheet.vue'));
const HeatRounds = defineAsyncComponent(() => import('./HeatRounds.vue'));
const StimulusLog = defineAsyncComponent(() => import('./StimulusLog.vue'));
const PhotoSheet = defineAsyncComponent(() => import('./PhotoSheet.vue'));
const TeardownList = defineAsyncComponent(() => import('./TeardownList.vue'));
const InstrumentInJob = defineAsyncComponent(() => import('./InstrumentInJob.vue'));
const shelved = ['light', 'sheet', 'work', 'heat', 'stimulus', 'teardown', 'photo', 'keys'] as const satisfies readonly BenchCommand[];
type Instrument = (typeof shelved)[number];
const opened = ref<Instrument>();
const shelf = ref<HTMLElement>();
const which = ref('discharge');

/** What was opened lies under its keys, which come to the top: it is no use below the edge of the screen. */
async function toggle(one: Instrument): Promise<void> {
  opened.value = opened.value === one ? undefined : one;
  await nextTick();
  if (opened.value) shelf.value?.scrollIntoView({ block: 'start' });
}
/** True where the key was one of theirs. */
function press({ command }: Pressed): boolean {
  const one = shelved.find((name) => name === command);
  if (one) void toggle(one);
  return one !== undefined;
}
async function openInstrument(id: string): Promise<void> {
  which.value = id;
  if (opened.value !== 'work') await toggle('work');
}
defineExpose({ press, openInstrument, close: (): void => (opened.value = undefined) });
</script>

<template>
  <div ref="shelf" class="instruments" role="group" :aria-label="t('bench.instruments.title')">
    <button
      v-for="name in shelved"
      :key="name"
      type="button"
      class="push"
      :aria-expanded="opened === name"
      :data-test="name === 'light' ? 'read-light' : `open-${name}`"
      @click="toggle(name)"
    >
      <KeyCap :label="cap(name)" />{{ t(`bench.instruments.${name}`) }}
    </button>
  </div>
  <div v-if="opened" class="opened">
    <BlinkInJob
      v-if="opened === 'light'"
      :compiled="compiled"
      :entries="entries"
      :layout="fold.set.layout"
      :family="family"
      @write="(bodies) => $emit('write', bodies)"
    />
    <RailSheet
      v-if="opened === 'sheet'"
      :fold="fold"
      :compiled="compiled"
      :entries="entries"
      :family="family"
      :shop="shop"
      :steps="steps"
      @write="(bodies) => $emit('write', bodies)"
      @take="(step) => $emit('take', step)"
    />
    <InstrumentInJob
      v-if="opened === 'work'"
      v-model="which"
      :fold="fold"
      :compiled="compiled"
      :entries="entries"
      :family="family"
      :shop="shop"
      :steps="steps"
      :current="current"
      @write="(bodies) => $emit('write', bodies)"
      @take="(step) => $emit('take', step)"
      @charge="(volts) => $emit('charge', volts)"
      @change="(made) => $emit('change', made)"
      @done="opened = undefined"
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
  </div>
</template>

<style scoped>
.instruments {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 6px;
  /* Under the band that says how the set stands. */
  scroll-margin-top: 60px;
}
.instruments .push {
  min-height: 40px;
  padding: 2px 10px;
  font-size: 15px;
}
.instruments .push {
  min-width: 0;
  overflow: hidden;
  white-space: nowrap;
}
@media (min-width: 1000px) {
  .instruments {
    flex: 1 1 0;
    flex-wrap: nowrap;
    min-width: 0;
  }
}
@media (min-width: 1000px) and (max-width: 1439.98px) {
  .instruments .push {
    padding: 2px 6px;
    gap: 4px;
    font-size: 14px;
  }
}
.opened {
  margin-top: 8px;
}
/* Over the step and the set, above its keys: nothing on the screen moves for it. */
@media (min-width: 1000px) and (min-height: 640px) {
  .opened {
    position: absolute;
    bottom: 100%;
    left: 0;
    z-index: 30;
    width: min(760px, 70%);
    max-height: min(560px, 75dvh);
    margin: 0 0 8px;
    overflow-y: auto;
    background: var(--ground);
    border: 2px solid var(--accent);
    border-radius: var(--radius);
    box-shadow: 0 -6px 24px rgb(0 0 0 / 25%);
  }
}
</style>
