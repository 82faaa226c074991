<script setup lang="ts" generic="T extends string | number">
/** A labelled choice of one. Where nothing need be chosen, the empty text stands for that and `none` says so. */
import FormField from './FormField.vue';

defineProps<{
  id: string;
  label: string;
  options: readonly { readonly value: T; readonly label: string }[];
  error?: string | undefined;
  none?: string;
  searched?: boolean;
}>();
const chosen = defineModel<T>({ required: true });
const emit = defineEmits<{ change: [] }>();
</script>

<template>
  <FormField :id="id" :label="label" :error="error">
    <el-select
      :id="id"
      v-model="chosen"
      :filterable="searched"
      :default-first-option="searched"
      :clearable="none !== undefined"
      :empty-values="[null, undefined, '']"
      :value-on-clear="''"
      :placeholder="none ?? ''"
      @change="emit('change')"
    >
      <el-option v-for="one in options" :key="one.value" :value="one.value" :label="one.label" />
    </el-select>
  </FormField>
</template>
