<script setup lang="ts">
/** What a deeper look says of the suggested step: agrees, or prefers another, with both figures. Never swaps a step under a finger. */
import type { CompiledPack, NextStep, RefinedStep } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { money, useNames } from '../../names.ts';

const props = defineProps<{
  looked: readonly RefinedStep[] | undefined;
  suggested: NextStep;
  compiled: CompiledPack;
}>();
const emit = defineEmits<{ take: [kind: NextStep['kind'], id: string, of: string | undefined] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);

const same = (one: RefinedStep): boolean =>
  one.kind === props.suggested.kind && one.id === props.suggested.id && (one.kind !== 'test' || one.of === props.suggested.of);
const best = computed(() => props.looked?.[0]);
const own = computed(() => props.looked?.find(same));
/** A gain nobody would notice is no gain: under a fiftieth of the whole. */
const better = computed(() => {
  const first = best.value;
  return first !== undefined && own.value !== undefined && !same(first) && first.toEndMinor < own.value.toEndMinor * 0.98
    ? first
    : undefined;
});
const amount = (minor: number): string => money({ amountMinor: minor, currency: props.suggested.cost.currency });
</script>

<template>
  <p class="soft deeper" data-test="deeper" aria-live="polite">
    <template v-if="looked === undefined">{{ t('bench.deeper.looking') }}</template>
    <template v-else-if="better && own">
      {{
        t('bench.deeper.better', {
          step: better.kind === 'stop' ? t('bench.deeper.giveUp') : names.step(better.kind, better.id, better.of),
          cost: amount(better.toEndMinor),
          instead: amount(own.toEndMinor),
        })
      }}
      <button v-if="better.kind !== 'stop'" type="button" class="plain" @click="emit('take', better.kind, better.id, better.of)">
        {{ t('bench.deeper.take') }}
      </button>
    </template>
    <template v-else-if="own">{{ t('bench.deeper.agrees', { cost: amount(own.toEndMinor) }) }}</template>
    <template v-else>{{ t('bench.deeper.none') }}</template>
  </p>
</template>

<style scoped>
.deeper {
  margin: 8px 0 0;
}
</style>
