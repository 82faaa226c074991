<script setup lang="ts">
/** Questions worth asking while the customer is there, and checks without a screw: those first that move the probabilities most. */
import type { CaseFold, CompiledPack, NextStep } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import { textOf } from '../../stores/packs.ts';
import type { Answer } from './intake.ts';

const props = defineProps<{ fold: CaseFold; compiled: CompiledPack; answered: readonly Answer[] }>();
const emit = defineEmits<{ answer: [answer: Answer]; takeBack: [answer: Answer] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const box = ref<HTMLElement>();
const skipped = ref(new Set<string>());

const closed = computed(() => props.compiled.stageIds[0]);
const checks = computed(() =>
  props.fold.next
    .filter((step) => step.kind === 'test' && step.stage === closed.value && step.waitMinutes === 0 && !skipped.value.has(step.id))
    .filter((step) => (props.compiled.tests.get(step.id)?.tools.length ?? 0) === 0)
    .sort((a, b) => (b.because.bits ?? 0) - (a.because.bits ?? 0)),
);
const step = computed<NextStep | undefined>(() => checks.value[0]);
const test = computed(() => (step.value ? props.compiled.tests.get(step.value.id) : undefined));
const later = computed(() => checks.value.slice(1, 4));

function answer(index: number): void {
  const outcome = test.value?.observe.outcomes[index];
  if (!step.value || !outcome) return;
  emit('answer', { test: step.value.id, of: step.value.of, outcome: outcome.id });
  box.value?.focus();
}
function skip(): void {
  if (step.value) skipped.value = new Set(skipped.value).add(step.value.id);
  box.value?.focus();
}
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.altKey || event.metaKey) return;
  if (event.key === '0') skip();
  else if (/^[1-7]$/.test(event.key)) answer(Number(event.key) - 1);
  else return;
  event.preventDefault();
}
const would = (outcome: string): string => {
  const one = step.value?.would.find((other) => other.outcome === outcome);
  return one ? t('bench.would', { id: names.assembly(one.top.id), probability: percent(one.top.probability) }) : '';
};
defineExpose({ focus: () => box.value?.focus() });
</script>

<template>
  <section ref="box" class="sheet ask" tabindex="-1" :aria-label="t('counter.ask.title')" data-test="ask-now" @keydown="onKey">
    <h2>{{ t('counter.ask.title') }} <kbd class="keys">Alt A</kbd></h2>
    <template v-if="step && test">
      <p class="what" :data-step="step.id">
        <strong>{{ names.test(step.id, step.of) }}</strong>
        <span class="soft figure">{{ t('common.minutes', { n: Math.max(1, Math.round(step.minutes)) }) }}</span>
      </p>
      <p class="how">{{ textOf(test.how) }} {{ textOf(test.watch) }}</p>
      <div class="answers">
        <button
          v-for="(outcome, index) in test.observe.outcomes"
          :key="outcome.id"
          type="button"
          class="answer"
          :data-outcome="outcome.id"
          @click="answer(index)"
        >
          <KeyCap :label="String(index + 1)" /> {{ textOf(outcome.name) }} <span class="soft then">{{ would(outcome.id) }}</span>
        </button>
        <button type="button" class="answer none" @click="skip"><KeyCap label="0" /> {{ t('counter.ask.skip') }}</button>
      </div>
      <p v-if="later.length > 0" class="soft small">
        {{ t('counter.ask.then', { what: later.map((one) => names.test(one.id, one.of)).join(', ') }) }}
      </p>
    </template>
    <p v-else class="soft">{{ t('counter.ask.none') }}</p>
    <ul v-if="answered.length > 0" class="done">
      <li v-for="one in answered" :key="`${one.test}|${one.of ?? ''}`">
        {{ names.test(one.test, one.of) }}: <strong>{{ names.outcome(one.test, one.outcome) }}</strong>
        <button type="button" class="plain" @click="$emit('takeBack', one)">{{ t('counter.ask.takeBack') }}</button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.ask {
  border-left: 6px solid var(--accent);
}
.keys {
  font-size: 13px;
  font-weight: 400;
}
.what {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  margin-top: 4px;
  font-size: 18px;
}
.how {
  margin: 2px 0 6px;
  font-size: 15px;
}
.answers {
  display: grid;
  gap: 4px;
}
.answer {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 40px;
  padding: 2px 10px;
  border: 1.5px solid var(--accent);
  border-radius: var(--radius);
  background: var(--surface);
  text-align: left;
  font-weight: 600;
  cursor: pointer;
}
.answer.none {
  border-color: var(--line);
  font-weight: 400;
}
.then {
  margin-left: auto;
  font-size: 14px;
  font-weight: 400;
}
.small {
  font-size: 14px;
  margin-top: 6px;
}
.done {
  margin-top: 6px;
  font-size: 15px;
}
.done li {
  display: flex;
  align-items: center;
  gap: 6px;
  flex-wrap: wrap;
}
</style>
