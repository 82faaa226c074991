<script setup lang="ts">
/** A file from any programmer, stored as it is chosen. */
import type { ImageFacts } from '@veglia/contract';
import { formatBytes } from '@veglia/core';
import { ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { NotReached } from '../../api.ts';
import { openImageFile } from '../../stores/imageFiles.ts';
import { sendDump, type SentDump } from '../../stores/images.ts';
import { useSession } from '../../stores/session.ts';

const props = defineProps<{ label: string; facts: ImageFacts; second?: boolean }>();
const emit = defineEmits<{ stored: [sent: SentDump] }>();
const { t } = useI18n();
const session = useSession();
const field = ref<HTMLInputElement>();
const sending = ref<{ sent: number; size: number; stop: AbortController }>();
const wrong = ref('');
const read = ref('');

async function send(): Promise<void> {
  const [file] = field.value?.files ?? [];
  const by = session.person?.id;
  if (!file || by === undefined) return void (wrong.value = t('flash.noFile'));
  if (file.size === 0) return void (wrong.value = t('flash.empty'));
  wrong.value = '';
  read.value = '';
  const opened = await openImageFile(file);
  if ('reason' in opened) {
    wrong.value = t('flash.file.refused', {
      line: 'line' in opened ? t('flash.file.line', { n: opened.line }) : '',
      why: t(`flash.file.why.${opened.reason}`),
    });
    if (field.value) field.value.value = '';
    return;
  }
  if (opened.format !== 'raw' || opened.packed)
    read.value = t('flash.file.read', {
      format: t(`flash.file.format.${opened.format}`),
      size: formatBytes(opened.bytes.size),
      gaps: t('flash.file.gaps', opened.gaps.length),
    });
  const stop = new AbortController();
  sending.value = { sent: 0, size: opened.bytes.size, stop };
  try {
    const progress = (sent: number): void => {
      if (sending.value) sending.value = { ...sending.value, sent };
    };
    const reply = await sendDump(opened.bytes, {
      by,
      facts: { ...props.facts, name: props.facts.name || file.name },
      progress,
      signal: stop.signal,
    });
    if (!reply.ok) wrong.value = reply.problem.title;
    else emit('stored', reply.value);
  } catch (error) {
    if (error instanceof NotReached) wrong.value = t('flash.wrong.notReached');
    else if (!stop.signal.aborted) throw error;
  } finally {
    sending.value = undefined;
    if (field.value) field.value.value = '';
  }
}
</script>

<template>
  <div class="dump">
    <label class="push" :class="{ full: !second }" :aria-busy="sending !== undefined">
      {{ label }}
      <input ref="field" type="file" class="visually-hidden" data-test="dump-file" :disabled="sending !== undefined" @change="send" />
    </label>
    <template v-if="sending">
      <progress :value="sending.sent" :max="sending.size" />
      <span data-test="sending">{{ t('flash.sending', { sent: formatBytes(sending.sent), size: formatBytes(sending.size) }) }}</span>
      <button type="button" class="plain" @click="sending.stop.abort()">{{ t('flash.stop') }}</button>
    </template>
    <p v-if="read" data-test="file-read">{{ read }}</p>
    <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.dump {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
}
progress {
  width: 180px;
  accent-color: var(--accent);
}
</style>
