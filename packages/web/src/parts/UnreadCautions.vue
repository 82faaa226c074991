<script setup lang="ts">
/** Cautions of a step that were not acknowledged in this job yet: whole, and what they are about stays shut. */
import type { Body, CompiledPack } from '@veglia/core';
import { useI18n } from 'vue-i18n';
import { cap } from '../screens/bench/keymap.ts';
import { textOf } from '../stores/packs.ts';
import KeyCap from './KeyCap.vue';

const props = defineProps<{ cautions: CompiledPack['pack']['cautions']; stage: string }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const read = (): void => emit('write', [{ kind: 'caution.read', v: 1, cautions: props.cautions.map(({ id }) => id), stage: props.stage }]);
</script>

<template>
  <ul class="cautions">
    <li v-for="one in cautions" :key="one.id">{{ textOf(one.text) }}</li>
    <li>
      <button type="button" class="push full" data-test="read-cautions" @click="read">
        <KeyCap :label="cap('cautions')" />{{ t('bench.readCautions') }}
      </button>
    </li>
  </ul>
</template>

<style scoped>
.cautions {
  display: grid;
  gap: 6px;
  padding: 8px 12px;
  background: var(--alarm-wash);
  border: 1px solid var(--alarm);
  border-radius: var(--radius);
}
</style>
