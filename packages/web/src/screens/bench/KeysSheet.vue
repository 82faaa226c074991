<script setup lang="ts">
/** Every key of the bench, and what is for busy hands. A pedal that types a key is just a key. */
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { aloud, canListen, canSpeak, dictated, far } from '../../stores/hands.ts';

const { t } = useI18n();
const keys = [
  'Space',
  '1–9',
  '0',
  'N',
  'T',
  'C',
  'A',
  'W',
  'E',
  'S D F',
  'O',
  'U',
  'R',
  'V',
  'G',
  'P',
  'X',
  '=',
  'L',
  'K',
  'H',
  'J',
  'Z',
  'I',
  'Q',
  'M',
  'B',
  'Y',
  'Esc',
  '?',
] as const;
</script>

<template>
  <section class="sheet" data-test="keys">
    <h2>{{ t('bench.keys.title') }}</h2>
    <dl>
      <div v-for="key in keys" :key="key"><KeyCap :label="key" /> {{ t(`bench.keys.of.${key}`) }}</div>
    </dl>
    <p class="ticks">
      <el-checkbox v-model="far">{{ t('bench.keys.far') }}</el-checkbox>
      <el-checkbox v-model="aloud" :disabled="!canSpeak">{{ t('bench.keys.aloud') }}</el-checkbox>
      <el-checkbox v-model="dictated" :disabled="!canListen">{{ t('bench.keys.dictated') }}</el-checkbox>
    </p>
    <p v-if="!canSpeak || !canListen" class="soft">{{ t('bench.keys.browser') }}</p>
  </section>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 6px 16px;
  margin: 8px 0;
}
.ticks {
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
}
</style>
