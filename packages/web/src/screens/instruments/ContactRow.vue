<script setup lang="ts">
/** A ribbon's contacts as they are to be taped for the next trial; told apart by pattern and letter as well as by shade. */
import type { PlotContacts } from '@veglia/core';
import { useI18n } from 'vue-i18n';

defineProps<{ contacts: PlotContacts['contacts'] }>();
const { t } = useI18n();
const states = ['covered', 'open', 'guilty', 'innocent'] as const;
</script>

<template>
  <figure data-test="contacts">
    <ol :aria-label="t('contacts.title')">
      <li v-for="(state, index) in contacts" :key="index" :class="state" :data-contact="index + 1" :data-state="state">
        <span class="pad" aria-hidden="true" />
        <span class="figure">{{ index + 1 }}</span>
        <span class="visually-hidden">{{ t(`contacts.${state}`) }}</span>
      </li>
    </ol>
    <figcaption>
      <span v-for="state in states" :key="state" :class="['key', state]">
        <span class="pad" aria-hidden="true" />{{ t(`contacts.${state}`) }}
      </span>
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 8px 0;
}
ol {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin: 0;
  padding: 8px;
  list-style: none;
  border: 2px solid var(--ink-soft);
  border-radius: var(--radius);
}
li {
  display: grid;
  justify-items: center;
  gap: 2px;
  width: 30px;
}
.pad {
  display: inline-block;
  width: 20px;
  height: 44px;
  border: 2px solid var(--ink);
  border-radius: 2px;
}
.covered .pad {
  background: repeating-linear-gradient(45deg, var(--accent) 0 4px, var(--surface) 4px 7px);
}
.guilty .pad {
  background: var(--ink);
}
.innocent .pad {
  border-style: dotted;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin-top: 6px;
  font-size: 15px;
}
.key {
  display: inline-flex;
  align-items: center;
  gap: 6px;
}
.key .pad {
  width: 12px;
  height: 20px;
}
</style>
