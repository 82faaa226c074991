<script setup lang="ts">
/** A dump of an area: the file is stored, hashed and looked at; the user area of an eMMC may be read a second time in samples. */
import type { ImageFacts } from '@veglia/contract';
import { formatBytes, oddOf, parseBytes, sizeOf, type AreaState, type Body, type FlashDid, type FlashSession } from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import TextField from '../../parts/TextField.vue';
import type { ProgrammerBench } from '../../stores/programmers.ts';
import type { SentDump } from '../../stores/images.ts';
import CombineReads from './CombineReads.vue';
import CopyTimer from './CopyTimer.vue';
import LogField from './LogField.vue';
import DumpField from './DumpField.vue';
import ProgrammerWork from './ProgrammerWork.vue';
import { shortHash } from './titles.ts';

const props = defineProps<{ session: FlashSession; area: AreaState; facts: ImageFacts; waiting: boolean; bench: ProgrammerBench }>();
const emit = defineEmits<{ did: [did: FlashDid]; write: [bodies: Body[]] }>();
const { t } = useI18n();
const cold = ref(false);
const log = ref('');
const sample = reactive({ size: '16 MiB', agrees: false, structure: false });
const wrong = ref('');
const maySample = computed(() => props.session.opened.memory === 'emmc' && props.area.area === 'user' && props.area.reads.length > 0);

/** Three whole reads, not all alike. */
const unsteady = computed(() => {
  const whole = props.area.reads.filter(({ extent }) => extent === 'whole');
  return whole.length >= 3 && new Set(whole.map(({ sha256 }) => sha256)).size > 1;
});

function stored({ image, dump }: SentDump): void {
  emit('did', {
    step: 'read',
    area: props.area.area,
    sha256: dump.sha256,
    bytes: dump.bytes,
    extent: 'whole',
    image: image.id,
    ...(cold.value ? { cold: true } : {}),
    ...oddOf(dump),
    ...(log.value === '' ? {} : { log: log.value }),
  });
}
function sampled(): void {
  const bytes = parseBytes(sample.size);
  wrong.value = bytes === undefined ? t('flash.wrong.size', { value: sample.size }) : '';
  if (bytes === undefined) return;
  emit('did', {
    step: 'read',
    area: props.area.area,
    bytes,
    extent: 'sampled',
    agrees: sample.agrees,
    ...(sample.structure ? { structure: 'sound' } : {}),
  });
}
</script>

<template>
  <div class="reads">
    <ul v-if="area.reads.length > 0" :aria-label="t('flash.readsSoFar')" data-test="reads">
      <li v-for="(one, index) in area.reads" :key="index">
        {{ index + 1 }}. {{ formatBytes(one.bytes) }}
        <span class="reading">{{ one.sha256 ? shortHash(one.sha256) : t('flash.field.sampled') }}</span>
        <details v-if="one.log">
          <summary>{{ t('flash.log.show') }}</summary>
          <pre class="reading">{{ one.log }}</pre>
        </details>
      </li>
    </ul>
    <el-checkbox v-model="cold">{{ t('flash.field.cold') }}</el-checkbox>
    <ProgrammerWork :session="session" :bench="bench" work="read" :area="area.area" :cold="cold" :facts="facts" />
    <CopyTimer
      :session="session"
      step="read"
      :bytes="sizeOf(session, area.area)"
      :waiting="waiting"
      @write="(bodies) => emit('write', bodies)"
    />
    <DumpField :label="t('flash.field.dump')" :second="bench.programmers.value.length > 0" :facts="facts" @stored="stored" />
    <LogField v-model="log" />
    <CombineReads v-if="unsteady" :area="area" :facts="facts" @did="(did) => emit('did', did)" />
    <form v-if="maySample" class="fields" @submit.prevent="sampled">
      <TextField id="flash-sampled" v-model="sample.size" :label="t('flash.field.bytes')" :error="wrong || undefined" />
      <el-checkbox v-model="sample.agrees" class="wide">{{ t('flash.field.agrees') }}</el-checkbox>
      <el-checkbox v-model="sample.structure" class="wide">{{ t('flash.field.structure') }}</el-checkbox>
      <button type="submit" class="push" data-test="record-sampled">{{ t('flash.field.sampled') }}</button>
    </form>
  </div>
</template>

<style scoped>
.reads {
  display: grid;
  gap: 8px;
}
</style>
