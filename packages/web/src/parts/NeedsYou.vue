<script setup lang="ts">
/** What the server refused, one by one: nothing of it is lost until a person says so. */
import { useI18n } from 'vue-i18n';
import { saveBlob } from '../saveBlob.ts';

export interface Refused {
  readonly key: string;
  readonly title: string;
  readonly why: string;
  /** What is saved to a file: all that was typed. */
  readonly content: unknown;
  readonly editable?: boolean;
}
defineProps<{ items: readonly Refused[] }>();
defineEmits<{ again: [key: string]; edit: [key: string]; discard: [key: string] }>();
const { t } = useI18n();

function save({ key, content }: Refused): void {
  const blob = content instanceof Blob ? content : new Blob([JSON.stringify(content, null, 2)], { type: 'application/json' });
  saveBlob(blob, `refused-${key}${content instanceof Blob ? '' : '.json'}`);
}
</script>

<template>
  <section v-if="items.length > 0" class="sheet needs" role="alert" data-test="needs-you">
    <strong class="alarm">{{ t('app.needsYou', items.length) }}</strong>
    <ul>
      <li v-for="one in items" :key="one.key">
        <p>
          {{ one.title }}: <span class="why">{{ one.why }}</span>
        </p>
        <button type="button" class="plain" data-test="refused-again" @click="$emit('again', one.key)">{{ t('app.sendAgain') }}</button>
        <button v-if="one.editable" type="button" class="plain" data-test="refused-edit" @click="$emit('edit', one.key)">
          {{ t('app.editRefused') }}
        </button>
        <button type="button" class="plain" data-test="refused-save" @click="save(one)">{{ t('app.saveRefused') }}</button>
        <button type="button" class="plain" data-test="refused-discard" @click="$emit('discard', one.key)">
          {{ t('app.discardRefused') }}
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.needs ul {
  max-height: 200px;
  margin: 4px 0 0;
  padding: 0;
  overflow-y: auto;
  list-style: none;
}
.needs p {
  margin: 4px 0 0;
  overflow-wrap: anywhere;
  color: var(--ink);
}
.why {
  font-weight: 600;
}
</style>
