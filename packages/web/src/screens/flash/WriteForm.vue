<script setup lang="ts">
/** Erase, blank check, program, verify: one press each; a file that was read back is compared here. */
import type { ImageFacts } from '@veglia/contract';
import type { AreaState, Body, FlashDid, FlashSession } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { cap } from '../bench/keymap.ts';
import type { ProgrammerBench } from '../../stores/programmers.ts';
import type { SentDump } from '../../stores/images.ts';
import CopyTimer from './CopyTimer.vue';
import LogField from './LogField.vue';
import DumpField from './DumpField.vue';
import ProgrammerWork from './ProgrammerWork.vue';
import { shortHash } from './titles.ts';

const props = defineProps<{
  step: 'erased' | 'blank' | 'programmed' | 'verified';
  session: FlashSession;
  area: AreaState;
  facts: ImageFacts;
  emmc: boolean;
  waiting: boolean;
  bench: ProgrammerBench;
}>();
const emit = defineEmits<{ did: [did: FlashDid]; write: [bodies: Body[]] }>();
const works = { erased: 'erase', blank: 'blank', programmed: 'program', verified: 'verify' } as const;
const { t } = useI18n();
/** Then what was done with another one is recorded beside it. */
const hasProgrammer = computed(() => props.bench.programmers.value.length > 0);
const sampled = ref(false);
const log = ref('');
const logged = (): { log?: string } => (log.value === '' ? {} : { log: log.value });
const area = computed(() => props.area.area);
const extent = computed(() => (sampled.value ? ('sampled' as const) : ('whole' as const)));

function program(): void {
  const { chosen } = props.area;
  if (chosen) emit('did', { step: 'programmed', area: area.value, sha256: chosen.sha256, ...logged() });
}
function readBack({ dump }: SentDump): void {
  emit('did', {
    step: 'verified',
    area: area.value,
    result: dump.sha256 === props.area.chosen?.sha256 ? 'equal' : 'differs',
    extent: 'whole',
    ...logged(),
  });
}
</script>

<template>
  <div class="write">
    <p v-if="area && props.area.chosen && step !== 'erased'">
      {{ t('flash.chosenIs', { hash: shortHash(props.area.chosen.sha256) }) }}
    </p>
    <el-checkbox v-if="emmc && (step === 'blank' || step === 'verified')" v-model="sampled">{{ t('flash.field.sampledOnly') }}</el-checkbox>
    <ProgrammerWork :key="step" :session="session" :bench="bench" :work="works[step]" :area="props.area.area" />
    <CopyTimer
      v-if="step === 'programmed' || step === 'verified'"
      :session="session"
      :step="step"
      :bytes="props.area.chosen?.bytes"
      :waiting="waiting"
      @write="(bodies) => emit('write', bodies)"
    />
    <p v-if="bench.run.value?.endedAt !== null" class="inline">
      <button
        v-if="step === 'erased'"
        type="button"
        class="push"
        :class="{ full: !hasProgrammer }"
        data-test="record-step"
        @click="emit('did', { step: 'erased', area })"
      >
        <KeyCap v-if="!hasProgrammer" :label="cap('confirm')" />{{ t(hasProgrammer ? 'flash.recordByHand' : 'flash.record') }}
      </button>
      <button
        v-if="step === 'programmed'"
        type="button"
        class="push"
        :class="{ full: !hasProgrammer }"
        data-test="record-step"
        @click="program"
      >
        <KeyCap v-if="!hasProgrammer" :label="cap('confirm')" />{{ t(hasProgrammer ? 'flash.recordByHand' : 'flash.record') }}
      </button>
      <template v-if="step === 'blank'">
        <button
          v-for="(one, index) in ['blank', 'not-blank'] as const"
          :key="one"
          type="button"
          class="push"
          :class="{ full: one === 'blank' && !hasProgrammer }"
          :data-result="one"
          @click="emit('did', { step: 'blank', area, result: one, extent })"
        >
          <KeyCap :label="cap('answer', index)" />{{ t(`flash.blankResult.${one}`) }}
        </button>
      </template>
      <template v-if="step === 'verified'">
        <DumpField :second="hasProgrammer" :label="t('flash.field.readBack')" :facts="facts" @stored="readBack" />
        <button
          v-for="(one, index) in ['equal', 'differs'] as const"
          :key="one"
          type="button"
          class="push"
          :data-result="one"
          @click="emit('did', { step: 'verified', area, result: one, extent, ...logged() })"
        >
          <KeyCap :label="cap('answer', index)" />{{ t(`flash.verifyResult.${one}`) }}
        </button>
      </template>
    </p>
    <LogField v-if="(step === 'programmed' || step === 'verified') && bench.run.value?.endedAt !== null" :key="step" v-model="log" />
  </div>
</template>

<style scoped>
.write {
  display: grid;
  gap: 8px;
}
</style>
