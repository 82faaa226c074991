<script setup lang="ts">
/** What else could be done: three on keys, the rest behind them, and what was left out with its reason. */
import { policies, type CaseFold, type CompiledPack, type NextStep, type Policy } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import StepLine from './StepLine.vue';
import { benchKeys, cap, type Pressed } from './keymap.ts';

const props = defineProps<{
  others: readonly NextStep[];
  fold: CaseFold;
  compiled: CompiledPack;
  policy: Policy;
}>();
const emit = defineEmits<{
  take: [step: NextStep];
  policy: [policy: Policy];
}>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const keyOf = (step: NextStep): string => `${step.kind}|${step.id}|${step.of ?? ''}`;
const shown = computed(() => props.others.slice(0, benchKeys.alternative.length));
const rest = computed(() => props.others.slice(benchKeys.alternative.length));

/** True where the key was one of theirs. */
function press({ command, nth }: Pressed): boolean {
  const step = props.others[nth];
  if (command === 'order') emit('policy', policies[(policies.indexOf(props.policy) + 1) % policies.length] ?? 'cost');
  else if (command === 'alternative' && step) emit('take', step);
  else return false;
  return true;
}
defineExpose({ press });
</script>

<template>
  <section class="sheet">
    <div class="line">
      <h2>{{ t('bench.others') }}</h2>
      <div class="switch" role="group" :aria-label="t('bench.order.title')">
        <KeyCap :label="cap('order')" />
        <button
          v-for="one in policies"
          :key="one"
          type="button"
          class="plain"
          :aria-pressed="policy === one"
          :data-test="`order-${one}`"
          @click="$emit('policy', one)"
        >
          {{ t(`bench.order.${one}`) }}
        </button>
      </div>
    </div>
    <div data-test="others">
      <ul class="others">
        <li v-for="(other, index) in shown" :key="keyOf(other)">
          <StepLine :step="other" :names="names" :key-label="cap('alternative', index)" @take="$emit('take', other)" />
        </li>
      </ul>
      <details v-if="rest.length > 0" open>
        <summary>{{ t('bench.moreSteps', { n: rest.length }) }}</summary>
        <ul class="others">
          <li v-for="other in rest" :key="keyOf(other)">
            <StepLine :step="other" :names="names" @take="$emit('take', other)" />
          </li>
        </ul>
      </details>
    </div>
    <details v-if="fold.leftOut.length > 0" data-test="left-out">
      <summary>{{ t('bench.leftOut') }}</summary>
      <ul>
        <li v-for="left in fold.leftOut" :key="keyOf(left.step)">
          <StepLine :step="left.step" :names="names" class="soft" @take="$emit('take', left.step)">{{
            t(`core.leftOut.${left.code}`)
          }}</StepLine>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 10px;
}
.switch {
  display: flex;
  align-items: center;
}
@media (min-width: 1000px) and (max-width: 1199.98px) {
  h2 {
    display: none;
  }
}
.switch .plain {
  padding: 0 5px;
  font-size: 14px;
}
.switch [aria-pressed='true'] {
  text-decoration: underline;
  text-underline-offset: 5px;
}
summary {
  cursor: pointer;
  min-height: 36px;
}
</style>
