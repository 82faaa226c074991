<script setup lang="ts">
/** A copy by any programmer is waiting time: how long it usually takes, and a timer that rings wherever one is. */
import { formatBytes, usualCopyTime, type Body, type FlashSession } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { copyWait, minutesRange } from './titles.ts';

const props = defineProps<{
  session: FlashSession;
  step: 'read' | 'programmed' | 'verified';
  bytes: number | undefined;
  waiting: boolean;
}>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const usual = computed(() => (props.bytes === undefined ? undefined : usualCopyTime(props.session.opened.memory, props.bytes)));
const minutes = computed(() => Math.max(1, Math.round(usual.value?.most ?? 0)));
function start(): void {
  emit('write', [{ kind: 'wait.started', v: 2, name: copyWait(t, props.session, props.step), minutes: minutes.value }]);
}
</script>

<template>
  <p v-if="usual && usual.most >= 2" class="inline" data-test="copy-time">
    <span>{{ t('flash.copy.before', { size: formatBytes(bytes ?? 0), minutes: minutesRange(usual) }) }}</span>
    <button v-if="!waiting" type="button" class="push" data-test="copy-timer" @click="start">
      {{ t('flash.copy.timer', { n: minutes }) }}
    </button>
  </p>
</template>
