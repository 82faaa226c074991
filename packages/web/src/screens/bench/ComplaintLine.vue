<script setup lang="ts">
/** What the set does, as told, until the bench has seen it: one key says it does just that, a choice says what it does instead. */
import type { Body, CompiledPack } from '@veglia/core';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { textOf } from '../../stores/packs.ts';
import { cap } from './keymap.ts';

const props = defineProps<{ compiled: CompiledPack; symptoms: readonly string[] }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const choosing = ref(false);
const other = ref('');

const nameOf = (id: string): string => textOf(props.compiled.pack.symptoms.find((one) => one.id === id)?.name) ?? id;
function record(symptoms: readonly string[]): void {
  emit('write', [{ kind: 'symptom.reported', v: 2, symptoms: [...symptoms], seen: true }]);
}
defineExpose({ confirm: () => record(props.symptoms) });
</script>

<template>
  <div class="complaint" data-test="complaint">
    <p>
      {{ t('bench.complaint.reported') }} <strong>{{ symptoms.map(nameOf).join(', ') }}</strong>
    </p>
    <button type="button" class="plain" data-test="complaint-seen" @click="record(symptoms)">
      <KeyCap :label="cap('symptom')" /> {{ t('bench.complaint.confirm') }}
    </button>
    <button v-if="!choosing" type="button" class="plain" data-test="complaint-other" @click="choosing = true">
      {{ t('bench.complaint.other') }}
    </button>
    <form v-else class="other" @submit.prevent="record([other])">
      <el-select v-model="other" filterable :aria-label="t('bench.newComplaint.label')" :placeholder="t('bench.newComplaint.label')">
        <el-option
          v-for="one in compiled.pack.symptoms"
          :key="one.id"
          :value="one.id"
          :label="`${textOf(one.name)} – ${textOf(one.said)}`"
        />
      </el-select>
      <button type="submit" class="push" :disabled="other === ''">{{ t('bench.newComplaint.record') }}</button>
    </form>
  </div>
</template>

<style scoped>
.complaint {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 10px;
}
.complaint p {
  margin: 0;
}
.other {
  display: flex;
  flex: 1 1 360px;
  gap: 8px;
}
.other .el-select {
  flex: 1;
}
</style>
