<script setup lang="ts">
/** After a repair the first symptom went and another came: what is it? Until that is told, nothing can be weighed. */
import type { Body, CompiledPack } from '@veglia/core';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { textOf } from '../../stores/packs.ts';

defineProps<{ compiled: CompiledPack }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const symptom = ref('');

function tell(): void {
  if (symptom.value !== '') emit('write', [{ kind: 'symptom.reported', v: 2, symptoms: [symptom.value], seen: true }]);
}
</script>

<template>
  <form class="sheet ask" data-test="new-complaint" @submit.prevent="tell">
    <h2>{{ t('bench.newComplaint.title') }}</h2>
    <p>{{ t('bench.newComplaint.how') }}</p>
    <el-select v-model="symptom" filterable :aria-label="t('bench.newComplaint.label')" :placeholder="t('bench.newComplaint.label')">
      <el-option v-for="one in compiled.pack.symptoms" :key="one.id" :value="one.id" :label="`${textOf(one.name)} – ${textOf(one.said)}`" />
    </el-select>
    <button type="submit" class="push" :disabled="symptom === ''">{{ t('bench.newComplaint.record') }}</button>
  </form>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.ask p {
  margin: 0;
}
</style>
