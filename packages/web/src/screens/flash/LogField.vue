<script setup lang="ts">
/** What another programmer wrote of its work, as a text file: kept with the step. */
import { mostLogLetters } from '@veglia/core';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';

const log = defineModel<string>({ required: true });
const { t, n } = useI18n();
const field = ref<HTMLInputElement>();
const wrong = ref('');
async function read(): Promise<void> {
  const [file] = field.value?.files ?? [];
  if (!file) return;
  const text = (await file.text()).trim();
  wrong.value =
    text === '' || text.includes('\0')
      ? t('flash.log.noText')
      : text.length > mostLogLetters
        ? t('flash.log.tooLong', { n: n(text.length), most: n(mostLogLetters) })
        : '';
  if (wrong.value === '') log.value = text;
  if (field.value) field.value.value = '';
}
</script>

<template>
  <div class="log">
    <label class="push">
      {{ t(log === '' ? 'flash.log.attach' : 'flash.log.other') }}
      <input ref="field" type="file" class="visually-hidden" accept=".txt,.log,text/plain" data-test="log-file" @change="read" />
    </label>
    <span v-if="log !== ''" data-test="log-attached">
      {{ t('flash.log.attached', log.split('\n').length) }}
      <button type="button" class="plain" @click="log = ''">{{ t('flash.log.remove') }}</button>
    </span>
    <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.log {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
}
</style>
