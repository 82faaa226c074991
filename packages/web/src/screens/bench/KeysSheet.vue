<script setup lang="ts">
/** Every key of the bench, and what is for busy hands. A pedal that types a key is just a key. */
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { aloud, canListen, canSpeak, dictated, far } from '../../stores/hands.ts';
import { benchCommands, caps } from './keymap.ts';

const { t } = useI18n();
</script>

<template>
  <section class="sheet" data-test="keys">
    <h2>{{ t('bench.keys.title') }}</h2>
    <dl>
      <div v-for="command in benchCommands" :key="command"><KeyCap :label="caps(command)" /> {{ t(`bench.keys.of.${command}`) }}</div>
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
