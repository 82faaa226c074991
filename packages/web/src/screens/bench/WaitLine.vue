<script setup lang="ts">
/** One timer: what is left of it, and once it is over, what to do. */
import type { Body, Wait } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import KeyCap from '../../parts/KeyCap.vue';
import { clockTime, useNow } from '../../stores/clock.ts';
import { cap } from './keymap.ts';

const props = defineProps<{ wait: Wait; /** It belongs to the step on the screen, which then wants its answer. */ asks?: boolean }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const now = useNow();
const left = computed(() => (props.wait.endsAt - now.value) / 1000);
const over = computed(() => left.value <= 0);

function end(): void {
  emit('write', [{ kind: 'wait.ended', v: 2, name: props.wait.name, wait: props.wait.id, ...(over.value ? {} : { early: true }) }]);
}
</script>

<template>
  <p class="wait" :class="{ over }" data-test="wait" :data-over="over">
    <span class="name">{{ wait.name }}</span>
    <span class="reading left">{{ over ? t('bench.wait.over') : clockTime(left) }}</span>
    <span v-if="over && asks">{{ t('bench.wait.answer') }}</span>
    <button type="button" class="plain" data-test="end-wait" @click="end">
      <KeyCap v-if="over" :label="cap('waitSeen')" />{{ over ? t('bench.wait.seen') : t('bench.wait.breakOff') }}
    </button>
  </p>
</template>

<style scoped>
.wait {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding: 4px 10px;
  border: 1.5px dashed var(--ink-soft);
  border-radius: var(--radius);
}
.wait.over {
  border: 3px solid var(--accent);
  font-weight: 600;
}
.name {
  flex: 1;
  min-width: 120px;
}
.left {
  font-size: 20px;
}
</style>
