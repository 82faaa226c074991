<script setup lang="ts">
/** What an image has to fit: the board and the panel that will be driven, as printed. */
import type { FlashDid } from '@veglia/core';
import { reactive, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import TextField from '../../parts/TextField.vue';
import { resolutionOf } from './titles.ts';

type Target = Extract<FlashDid, { step: 'target' }>;
const props = defineProps<{ target: Target | undefined; board: string | undefined }>();
const emit = defineEmits<{ did: [did: FlashDid] }>();
const { t } = useI18n();
const open = ref(false);
const form = reactive({ board: '', revision: '', panel: '', resolution: '', pairs: '', region: '' });
const wrong = ref<Partial<Record<'resolution' | 'pairs' | 'board', string>>>({});
watch(
  () => props.target,
  (target) =>
    Object.assign(form, {
      board: target?.board ?? props.board ?? '',
      revision: target?.revision ?? '',
      panel: target?.panel ?? '',
      resolution: target?.resolution?.join(' × ') ?? '',
      pairs: target?.pairs === undefined ? '' : String(target.pairs),
      region: target?.region ?? '',
    }),
  { immediate: true },
);

function record(): void {
  const text = (of: 'board' | 'revision' | 'panel' | 'region'): Record<string, string> =>
    form[of].trim() === '' ? {} : { [of]: form[of].trim() };
  const resolution = resolutionOf(form.resolution);
  const pairs = form.pairs.trim() === '' ? undefined : Number(form.pairs);
  wrong.value = {
    ...(form.board.trim() === '' && form.panel.trim() === '' ? { board: t('flash.wrong.boardOrPanel') } : {}),
    ...(form.resolution.trim() !== '' && !resolution ? { resolution: t('flash.wrong.resolution') } : {}),
    ...(pairs !== undefined && !(Number.isInteger(pairs) && pairs >= 1 && pairs <= 64) ? { pairs: t('flash.wrong.pairs') } : {}),
  };
  if (Object.keys(wrong.value).length > 0) return;
  emit('did', {
    step: 'target',
    ...text('board'),
    ...text('revision'),
    ...text('panel'),
    ...text('region'),
    ...(resolution ? { resolution } : {}),
    ...(pairs === undefined ? {} : { pairs }),
  });
  open.value = false;
}
</script>

<template>
  <section class="sheet" data-test="flash-target">
    <h2>{{ t('flash.target.title') }}</h2>
    <p v-if="target" data-test="target-known">
      {{
        [
          target.board && t('flash.target.board', { board: [target.board, target.revision].filter(Boolean).join(' ') }),
          target.panel && t('flash.target.panel', { panel: target.panel }),
          target.resolution?.join(' × '),
          target.pairs && t('flash.target.pairs', { n: target.pairs }),
          target.region,
        ]
          .filter(Boolean)
          .join(', ')
      }}
    </p>
    <p v-else class="soft">{{ t('flash.target.none') }}</p>
    <button v-if="!open" type="button" class="push" data-test="target-open" @click="open = true">
      {{ t(target ? 'flash.target.change' : 'flash.target.enter') }}
    </button>
    <form v-else class="fields" @submit.prevent="record">
      <TextField
        id="target-board"
        v-model="form.board"
        :label="t('flash.target.field.board')"
        :error="wrong.board"
        :bounds="{ longest: 80 }"
      />
      <TextField id="target-revision" v-model="form.revision" :label="t('flash.target.field.revision')" :bounds="{ longest: 80 }" />
      <TextField id="target-panel" v-model="form.panel" :label="t('flash.target.field.panel')" :bounds="{ longest: 80 }" />
      <TextField
        id="target-resolution"
        v-model="form.resolution"
        :label="t('flash.target.field.resolution')"
        :error="wrong.resolution"
        placeholder="1920 x 1080"
      />
      <TextField id="target-pairs" v-model="form.pairs" :label="t('flash.target.field.pairs')" :error="wrong.pairs" />
      <TextField id="target-region" v-model="form.region" :label="t('flash.target.field.region')" :bounds="{ longest: 80 }" />
      <button type="submit" class="push full" data-test="record-target">{{ t('flash.target.record') }}</button>
    </form>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
  justify-items: start;
}
form {
  justify-self: stretch;
}
</style>
