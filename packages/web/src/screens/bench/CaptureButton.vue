<script setup lang="ts">
/** A rail that may come and go: logged by the meter for some seconds, or read from a logger's file, and called what it is. */
import { problemSentence, readVoltsCsv, words } from '@veglia/contract';
import { behaviourOf, judgeCapture, voltsOf, type Behaviour, type CaptureSample } from '@veglia/core';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useMeter } from '../../stores/meter.ts';

const emit = defineEmits<{ captured: [volts: number, behaves: Behaviour] }>();
const { t } = useI18n();
const meter = useMeter();
const said = ref('');
const busy = ref(false);
/** Long enough for a set to try to start and give up (value of ours), seconds. */
const logSeconds = 10;

function judge(samples: readonly CaptureSample[]): void {
  const capture = judgeCapture(samples);
  const behaves = behaviourOf(capture);
  said.value = t(`bench.capture.${capture.kind}`, {
    n: samples.length,
    peak: Number(capture.peakVolts.toPrecision(3)),
    end: Number(capture.endVolts.toPrecision(3)),
    mean: Number(capture.meanVolts.toPrecision(2)),
    seconds: capture.thereS === undefined ? '' : Number(capture.thereS.toPrecision(2)),
    pulses: capture.pulses ?? 0,
  });
  if (behaves) emit('captured', voltsOf(capture), behaves);
}
async function file(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const [chosen] = field.files ?? [];
  if (!chosen) return;
  const read = readVoltsCsv(await chosen.text(), chosen.name);
  field.value = '';
  if ('problems' in read) said.value = read.problems.map((one) => problemSentence(one, words.en)).join(' ');
  else judge(read.samples);
}
/** As fast as the meter answers. */
async function log(): Promise<void> {
  busy.value = true;
  said.value = t('bench.capture.logging', { n: logSeconds });
  const samples: CaptureSample[] = [];
  try {
    const begin = performance.now();
    for (let at = 0; at < logSeconds; at = (performance.now() - begin) / 1000) {
      const reading = await meter.ask('dc-volts');
      if (reading.kind !== 'value') {
        said.value = t(`meter.said.${reading.kind === 'over-range' ? 'over-volts' : reading.kind}`, { detail: '' });
        return;
      }
      samples.push({ timeS: (performance.now() - begin) / 1000, volts: reading.value });
    }
    judge(samples);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <span class="capture">
    <button v-if="meter.there" type="button" class="plain" :disabled="busy" data-test="log-meter" @click="log">
      {{ t('bench.capture.log', { n: logSeconds }) }}
    </button>
    <label class="plain">
      {{ t('bench.capture.file') }}
      <input type="file" accept=".csv,text/csv" class="visually-hidden" data-test="capture-file" @change="file" />
    </label>
    <span v-if="said" class="said" role="status" data-test="capture-said">{{ said }}</span>
  </span>
</template>

<style scoped>
.capture {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 8px;
}
.plain {
  display: inline-flex;
  align-items: center;
  padding: 4px 2px;
}
.said {
  font-size: 14px;
  font-weight: 600;
}
</style>
