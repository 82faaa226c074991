<script setup lang="ts">
/** The bench's instruments by themselves: nothing is stored. In a job they open on the Bench. */
import { instrumentWords } from '@veglia/contract';
import { instruments } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { useTypedInstruments } from '../../stores/typedInstruments.ts';
import InstrumentSheet from './InstrumentSheet.vue';
import WarmthSheet from './WarmthSheet.vue';

const { t } = useI18n();
const route = useRoute();
const router = useRouter();
const store = useTypedInstruments();
const names = computed(() => instrumentWords.en.instrument);
const isThermal = computed(() => route.params.instrument === 'thermal');
const listed = [...instruments.map(({ id }) => id), 'thermal'];
const chosen = computed(() => instruments.find(({ id }) => id === route.params.instrument) ?? instruments[0]);
const typed = computed(() => store.of('', chosen.value?.id ?? ''));
</script>

<template>
  <h1>{{ t('instruments.title') }}</h1>
  <div v-if="chosen" class="pair">
    <nav class="sheet list" :aria-label="t('instruments.title')">
      <button
        v-for="one in listed"
        :key="one"
        type="button"
        class="plain"
        :aria-current="one === (isThermal ? 'thermal' : chosen.id)"
        :data-test="`instrument-${one}`"
        @click="router.replace({ params: { instrument: one } })"
      >
        {{ names[one]?.name ?? one }}
      </button>
    </nav>
    <div class="sheet">
      <WarmthSheet v-if="isThermal" />
      <InstrumentSheet v-else :key="chosen.id" :instrument="chosen" :typed="typed" />
    </div>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
  gap: 14px;
  margin-top: 10px;
  align-items: start;
}
.list {
  display: grid;
  padding: 6px;
}
.list button {
  text-align: left;
}
.list [aria-current='true'] {
  background: var(--accent-wash);
}
@media (max-width: 1000px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .list {
    display: none;
  }
}
</style>
