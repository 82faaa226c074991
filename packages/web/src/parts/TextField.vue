<script setup lang="ts">
/** A labelled line, or several lines, of text. */
import type { Bounds } from '@veglia/contract';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { lettersTooMany } from '../numbers.ts';
import FormField from './FormField.vue';

const props = defineProps<{
  id: string;
  label: string;
  error?: string | undefined;
  placeholder?: string;
  inputmode?: 'numeric' | 'decimal';
  disabled?: boolean;
  /** Proposed while typing; anything else may be typed. */
  proposals?: readonly string[];
  /** More than one: a field of that height. */
  rows?: number;
  /** What may be stored. More is told while it is typed, and never cut off. */
  bounds?: Bounds;
}>();
const { t } = useI18n();
const text = defineModel<string>({ required: true });
const tooLong = computed(() => {
  const n = lettersTooMany(text.value, props.bounds ?? {});
  return n === 0 ? undefined : t('common.tooLong', { n, most: props.bounds?.longest ?? 0 }, n);
});
const list = (): Record<string, string> => (props.proposals ? { list: `${props.id}-proposals` } : {});
</script>

<template>
  <FormField :id="id" :label="label" :error="error ?? tooLong">
    <el-input
      :id="id"
      v-model="text"
      v-bind="list()"
      :type="rows ? 'textarea' : 'text'"
      :rows="rows"
      :inputmode="inputmode"
      :placeholder="placeholder"
      :disabled="disabled"
      autocomplete="off"
    />
    <datalist v-if="proposals" :id="`${id}-proposals`"><option v-for="one in proposals" :key="one" :value="one" /></datalist>
  </FormField>
</template>
