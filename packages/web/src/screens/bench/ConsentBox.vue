<script setup lang="ts">
/** What a step breaks that is the customer's to decide; asked here, before the first move. */
import type { Body, Consent } from '@veglia/core';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';

const props = defineProps<{ consent: Consent }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const who = ref('');

function agreed(): void {
  emit('write', [{ kind: 'consent.given', v: 1, to: props.consent, ...(who.value.trim() === '' ? {} : { who: who.value.trim() }) }]);
  who.value = '';
}
</script>

<template>
  <form class="alarm consent" role="group" :aria-label="t('bench.consent.title')" data-test="consent" @submit.prevent="agreed">
    <p>{{ t(`bench.consent.${consent}`) }}</p>
    <label>
      {{ t(consent === 'dead-chip' ? 'bench.consent.decided' : 'bench.consent.who') }}
      <input v-model="who" type="text" maxlength="200" autocomplete="off" />
    </label>
    <button type="submit" class="push full" data-test="consent-given">
      {{ t(consent === 'dead-chip' ? 'bench.consent.exception' : 'bench.consent.record') }}
    </button>
  </form>
</template>

<style scoped>
.consent {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  margin: 8px 0;
}
.consent p {
  flex-basis: 100%;
}
.consent input {
  min-height: 40px;
  padding: 4px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--paper, transparent);
  color: inherit;
  font: inherit;
}
</style>
