<script setup lang="ts">
/** The reader within a job: a reading becomes an entry; with a board out it answers the test that compares as well. */
import { codeInWords, words } from '@veglia/contract';
import { liveEntries, type Body, type CompiledPack, type Entry } from '@veglia/core';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import BlinkReader from './BlinkReader.vue';
import { blinkBody, comparedWith, type Taken } from './reading.ts';

const props = defineProps<{
  compiled: CompiledPack;
  entries: readonly Entry[];
  layout: string | undefined;
  family: string | undefined;
  /** Unplugged already, where a step says so. */
  out?: string | undefined;
  /** The set was brought there change by change. */
  walked?: boolean | undefined;
}>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const unplugged = ref('');
watch(
  () => props.out,
  (now) => (unplugged.value = now ?? ''),
  { immediate: true },
);
/** The test that compares a code with a board out, in this layout. */
const compares = computed(() =>
  props.compiled.testsOf
    .get(props.layout ?? '')
    ?.find(({ observe }) => observe.outcomes.some(({ seen }) => seen?.some((one) => 'code' in one && one.code === 'changed'))),
);
const boards = computed(() => (compares.value ? props.compiled.objectsOf(compares.value, props.layout ?? '') : []));
const before = computed(() => {
  const last = liveEntries(props.entries).findLast(
    ({ body }) => body.kind === 'blink.read' && body.out === undefined && body.groups.length > 0,
  );
  return last?.body.kind === 'blink.read' ? last.body : undefined;
});
const said = ref('');

function take(taken: Taken): void {
  said.value = '';
  const board = unplugged.value;
  const bodies: Body[] = [blinkBody(taken, board === '' ? undefined : board)];
  const outcome = board !== '' && before.value ? comparedWith(before.value.groups, taken) : undefined;
  if (outcome && compares.value && before.value) {
    bodies.push({
      kind: 'test.answered',
      v: 2,
      test: compares.value.id,
      of: board,
      outcome,
      sure: taken.cycles >= 2 || taken.groups.length === 0 ? 'sure' : 'think-so',
      ...(props.walked ? { walked: true } : {}),
      words: { test: names.test(compares.value.id, board), outcome: names.outcome(compares.value.id, outcome) },
    });
    said.value = t('blink.comparedTo', { code: codeInWords(before.value, words.en), outcome: t(`blink.outcome.${outcome}`) });
    if (outcome === 'changed') said.value += ` ${t('blink.refit')}`;
    unplugged.value = '';
  }
  emit('write', bodies);
}
</script>

<template>
  <div class="injob" data-test="blink-in-job">
    <ChoiceField
      v-if="boards.length > 0 && before"
      id="blink-out"
      v-model="unplugged"
      :label="t('blink.boardOut')"
      :options="boards.map((id) => ({ value: id as string, label: names.assembly(id) }))"
      :none="t('blink.nothingOut')"
    />
    <p v-if="said" role="status" class="alarm" data-test="compared">{{ said }}</p>
    <BlinkReader
      :compiled="compiled"
      :family="family"
      :layouts="layout === undefined ? [] : [layout]"
      :take-label="t('blink.take')"
      @take="take"
    />
  </div>
</template>

<style scoped>
.injob {
  display: grid;
  gap: 8px;
  min-width: 0;
}
</style>
